<template>
  <div>
    <textarea ref="text" v-model="text" :maxlength="max" @blur="touched = true"></textarea>
    <p v-show="touched && left < 10">{{ left }} left</p>
    <label v-for="to in harbours" :key="to"><input type="checkbox" :value="to" v-model="receivers" /> {{ to }}</label>
    <button @click="send" :disabled="!canSend">send</button>
    <p>{{ status }}</p>
  </div>
</template>

<script>
import throttle from './throttle';

export default {
  name: 'MessageForm',
  model: { prop: 'message', event: 'typed' },
  props: { message: { type: String, default: '' }, max: { type: Number, default: 40 } },
  data() {
    return { text: this.message, touched: false, receivers: [], status: '', harbours: ['Holm', 'Skail'], drafts: 0 };
  },
  computed: {
    left() {
      return this.max - this.text.length;
    },
    canSend: vm => vm.text.length > 0 && vm.receivers.length > 0,
  },
  watch: {
    message(now) {
      this.text = now;
    },
    text: {
      handler: throttle(function (text) {
        this.drafts++;
        this.$emit('typed', text);
      }, 200),
    },
  },
  mounted() {
    this.$refs.text.focus();
    window.addEventListener('beforeunload', this.warn);
  },
  destroyed() {
    window.removeEventListener('beforeunload', this.warn);
  },
  methods: {
    warn(event) {
      if (this.text) event.returnValue = 'unsent';
    },
    send() {
      this.status = 'sending';
      var self = this;
      setTimeout(function () {
        self.status = 'sent to ' + self.receivers.join();
        self.$emit('sent', self.receivers.slice());
        self.text = '';
        self.$nextTick(() => self.$refs.text.focus());
      }, 50);
    },
  },
};
</script>
