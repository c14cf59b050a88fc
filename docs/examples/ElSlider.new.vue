<template>
  <div
    class="el-slider"
    :class="{ 'is-vertical': vertical, 'el-slider--with-input': showInput }"
    role="slider"
    :aria-valuemin="min"
    :aria-valuemax="max"
    :aria-orientation="vertical ? 'vertical': 'horizontal'"
    :aria-disabled="sliderDisabled"
  >
    <el-input-number
      v-model="firstValue"
      v-if="showInput && !range"
      class="el-slider__input"
      ref="input"
      @change="emitChange"
      :step="step"
      :disabled="sliderDisabled"
      :controls="showInputControls"
      :min="min"
      :max="max"
      :debounce="debounce"
      :size="inputSize">
    </el-input-number>
    <div
      class="el-slider__runway"
      :class="{ 'show-input': showInput, 'disabled': sliderDisabled }"
      :style="runwayStyle"
      @click="onSliderClick"
      ref="slider">
      <div
        class="el-slider__bar"
        :style="barStyle">
      </div>
      <slider-button
        :vertical="vertical"
        v-model="firstValue"
        :tooltip-class="tooltipClass"
        ref="button1">
      </slider-button>
      <slider-button
        :vertical="vertical"
        v-model="secondValue"
        :tooltip-class="tooltipClass"
        ref="button2"
        v-if="range">
      </slider-button>
      <div
        class="el-slider__stop"
        v-for="(item, key) in stops"
        :key="key"
        :style="getStopStyle(item)"
        v-if="showStops">
      </div>
      <template v-if="markList.length > 0">
        <div>
          <div
            v-for="(item, key) in markList"
            :style="getStopStyle(item.position)"
            class="el-slider__stop el-slider__marks-stop"
            :key="key">
          </div>
        </div>
        <div class="el-slider__marks">
          <slider-marker
            :mark="item.mark" v-for="(item, key) in markList"
            :key="key"
            :style="getStopStyle(item.position)">
          </slider-marker>
        </div>
      </template>
    </div>
  </div>
</template>

<script type="text/babel">
  import ElInputNumber from 'element-ui/packages/input-number';
  import SliderButton from './button.vue';
  import SliderMarker from './marker';
  import Emitter from 'element-ui/src/mixins/emitter';

  export default {
    name: 'ElSlider',
    mixins: [Emitter]
  };
</script>

<script setup type="text/babel">
  import {
    computed,
    getCurrentInstance,
    inject,
    nextTick,
    onBeforeUnmount,
    onMounted,
    ref,
    watch
  } from 'vue';

  const props = defineProps({
    min: {
      type: Number,
      default: 0
    },
    max: {
      type: Number,
      default: 100
    },
    step: {
      type: Number,
      default: 1
    },
    value: {
      type: [Number, Array],
      default: 0
    },
    showInput: {
      type: Boolean,
      default: false
    },
    showInputControls: {
      type: Boolean,
      default: true
    },
    inputSize: {
      type: String,
      default: 'small'
    },
    showStops: {
      type: Boolean,
      default: false
    },
    showTooltip: {
      type: Boolean,
      default: true
    },
    formatTooltip: Function,
    disabled: {
      type: Boolean,
      default: false
    },
    range: {
      type: Boolean,
      default: false
    },
    vertical: {
      type: Boolean,
      default: false
    },
    height: {
      type: String
    },
    debounce: {
      type: Number,
      default: 300
    },
    label: {
      type: String
    },
    tooltipClass: String,
    marks: Object
  });
  const emit = defineEmits(['input', 'change']);

  const { proxy } = getCurrentInstance();

  const elForm = inject('elForm', '');

  const button1 = ref(null);
  const slider = ref(null);

  const firstValue = ref(null);
  const secondValue = ref(null);
  const oldValue = ref(null);
  const dragging = ref(false);
  const sliderSize = ref(1);

  const stops = computed(() => {
    if (!props.showStops || props.min > props.max) return [];
    if (props.step === 0) {
      process.env.NODE_ENV !== 'production' &&
      console.warn('[Element Warn][Slider]step should not be 0.');
      return [];
    }
    const stopCount = (props.max - props.min) / props.step;
    const stepWidth = 100 * props.step / (props.max - props.min);
    const result = [];
    for (let i = 1; i < stopCount; i++) {
      result.push(i * stepWidth);
    }
    if (props.range) {
      return result.filter(step => {
        return step < 100 * (minValue.value - props.min) / (props.max - props.min) ||
          step > 100 * (maxValue.value - props.min) / (props.max - props.min);
      });
    } else {
      return result.filter(step => step > 100 * (firstValue.value - props.min) / (props.max - props.min));
    }
  });

  const markList = computed(() => {
    if (!props.marks) {
      return [];
    }

    const marksKeys = Object.keys(props.marks);
    return marksKeys.map(parseFloat)
      .sort((a, b) => a - b)
      .filter(point => point <= props.max && point >= props.min)
      .map(point => ({
        point,
        position: (point - props.min) * 100 / (props.max - props.min),
        mark: props.marks[point]
      }));
  });

  const minValue = computed(() => {
    return Math.min(firstValue.value, secondValue.value);
  });

  const maxValue = computed(() => {
    return Math.max(firstValue.value, secondValue.value);
  });

  const barSize = computed(() => {
    return props.range
      ? `${ 100 * (maxValue.value - minValue.value) / (props.max - props.min) }%`
      : `${ 100 * (firstValue.value - props.min) / (props.max - props.min) }%`;
  });

  const barStart = computed(() => {
    return props.range
      ? `${ 100 * (minValue.value - props.min) / (props.max - props.min) }%`
      : '0%';
  });

  const precision = computed(() => {
    let precisions = [props.min, props.max, props.step].map(item => {
      let decimal = ('' + item).split('.')[1];
      return decimal ? decimal.length : 0;
    });
    return Math.max.apply(null, precisions);
  });

  const runwayStyle = computed(() => {
    return props.vertical ? { height: props.height } : {};
  });

  const barStyle = computed(() => {
    return props.vertical
      ? {
        height: barSize.value,
        bottom: barStart.value
      } : {
        width: barSize.value,
        left: barStart.value
      };
  });

  const sliderDisabled = computed(() => {
    return props.disabled || (elForm || {}).disabled;
  });

  proxy.$watch(
    () => props.value,
    (val, oldVal) => {
      if (dragging.value ||
        Array.isArray(val) &&
        Array.isArray(oldVal) &&
        val.every((item, index) => item === oldVal[index])) {
        return;
      }
      setValues();
    }
  );

  watch(dragging, val => {
    if (!val) {
      setValues();
    }
  });

  proxy.$watch(
    () => firstValue.value,
    val => {
      if (props.range) {
        emit('input', [minValue.value, maxValue.value]);
      } else {
        emit('input', val);
      }
    }
  );

  proxy.$watch(
    () => secondValue.value,
    () => {
      if (props.range) {
        emit('input', [minValue.value, maxValue.value]);
      }
    }
  );

  watch(
    () => props.min,
    () => {
      setValues();
    }
  );

  watch(
    () => props.max,
    () => {
      setValues();
    }
  );

  function valueChanged() {
    if (props.range) {
      return ![minValue.value, maxValue.value]
        .every((item, index) => item === oldValue.value[index]);
    } else {
      return props.value !== oldValue.value;
    }
  }

  function setValues() {
    if (props.min > props.max) {
      console.error('[Element Error][Slider]min should not be greater than max.');
      return;
    }
    const val = props.value;
    if (props.range && Array.isArray(val)) {
      if (val[1] < props.min) {
        emit('input', [props.min, props.min]);
      } else if (val[0] > props.max) {
        emit('input', [props.max, props.max]);
      } else if (val[0] < props.min) {
        emit('input', [props.min, val[1]]);
      } else if (val[1] > props.max) {
        emit('input', [val[0], props.max]);
      } else {
        firstValue.value = val[0];
        secondValue.value = val[1];
        if (valueChanged()) {
          proxy.dispatch('ElFormItem', 'el.form.change', [minValue.value, maxValue.value]);
          oldValue.value = val.slice();
        }
      }
    } else if (!props.range && typeof val === 'number' && !isNaN(val)) {
      if (val < props.min) {
        emit('input', props.min);
      } else if (val > props.max) {
        emit('input', props.max);
      } else {
        firstValue.value = val;
        if (valueChanged()) {
          proxy.dispatch('ElFormItem', 'el.form.change', val);
          oldValue.value = val;
        }
      }
    }
  }

  function setPosition(percent) {
    const targetValue = props.min + percent * (props.max - props.min) / 100;
    if (!props.range) {
      button1.value.setPosition(percent);
      return;
    }
    let button;
    if (Math.abs(minValue.value - targetValue) < Math.abs(maxValue.value - targetValue)) {
      button = firstValue.value < secondValue.value ? 'button1' : 'button2';
    } else {
      button = firstValue.value > secondValue.value ? 'button1' : 'button2';
    }
    proxy.$refs[button].setPosition(percent);
  }

  function onSliderClick(event) {
    if (sliderDisabled.value || dragging.value) return;
    resetSize();
    if (props.vertical) {
      const sliderOffsetBottom = slider.value.getBoundingClientRect().bottom;
      setPosition((sliderOffsetBottom - event.clientY) / sliderSize.value * 100);
    } else {
      const sliderOffsetLeft = slider.value.getBoundingClientRect().left;
      setPosition((event.clientX - sliderOffsetLeft) / sliderSize.value * 100);
    }
    emitChange();
  }

  function resetSize() {
    if (slider.value) {
      sliderSize.value = slider.value[`client${ props.vertical ? 'Height' : 'Width' }`];
    }
  }

  function emitChange() {
    nextTick(() => {
      emit('change', props.range ? [minValue.value, maxValue.value] : props.value);
    });
  }

  function getStopStyle(position) {
    return props.vertical ? { 'bottom': position + '%' } : { 'left': position + '%' };
  }

  onMounted(() => {
    let valuetext;
    if (props.range) {
      if (Array.isArray(props.value)) {
        firstValue.value = Math.max(props.min, props.value[0]);
        secondValue.value = Math.min(props.max, props.value[1]);
      } else {
        firstValue.value = props.min;
        secondValue.value = props.max;
      }
      oldValue.value = [firstValue.value, secondValue.value];
      valuetext = `${firstValue.value}-${secondValue.value}`;
    } else {
      if (typeof props.value !== 'number' || isNaN(props.value)) {
        firstValue.value = props.min;
      } else {
        firstValue.value = Math.min(props.max, Math.max(props.min, props.value));
      }
      oldValue.value = firstValue.value;
      valuetext = firstValue.value;
    }
    proxy.$el.setAttribute('aria-valuetext', valuetext);

    // label screen reader
    proxy.$el.setAttribute('aria-label', props.label ? props.label : `slider between ${props.min} and ${props.max}`);

    resetSize();
    window.addEventListener('resize', resetSize);
  });

  onBeforeUnmount(() => {
    window.removeEventListener('resize', resetSize);
  });

  defineExpose({
    firstValue,
    secondValue,
    oldValue,
    dragging,
    sliderSize,
    setPosition,
    onSliderClick,
    resetSize,
    emitChange,
    getStopStyle,
    stops,
    markList,
    minValue,
    maxValue,
    precision,
    runwayStyle,
    barStyle,
    sliderDisabled
  });
</script>
