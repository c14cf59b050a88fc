<template>
  <li class="el-menu-item"
    role="menuitem"
    tabindex="-1"
    :style="[paddingStyle, itemStyle, { backgroundColor }]"
    :class="{
      'is-active': active,
      'is-disabled': disabled
    }"
    @click="handleClick"
    @mouseenter="onMouseEnter"
    @focus="onMouseEnter"
    @blur="onMouseLeave"
    @mouseleave="onMouseLeave"
  >
    <el-tooltip
      v-if="parentMenu.$options.componentName === 'ElMenu' && rootMenu.collapse && $slots.title"
      effect="dark"
      placement="right">
      <div slot="content"><slot name="title"></slot></div>
      <div style="position: absolute;left: 0;top: 0;height: 100%;width: 100%;display: inline-block;box-sizing: border-box;padding: 0 20px;">
        <slot></slot>
      </div>
    </el-tooltip>
    <template v-else>
      <slot></slot>
      <slot name="title"></slot>
    </template>
  </li>
</template>
<script>
  import Menu from './menu-mixin';
  import ElTooltip from 'element-ui/packages/tooltip';
  import Emitter from 'element-ui/src/mixins/emitter';

  export default {
    name: 'ElMenuItem',
    componentName: 'ElMenuItem',
    mixins: [Menu, Emitter]
  };
</script>

<script setup>
  import { computed, getCurrentInstance, onBeforeUnmount, onMounted } from 'vue';

  const props = defineProps({
    index: {
      default: null,
      validator: val => typeof val === 'string' || val === null
    },
    route: [String, Object],
    disabled: Boolean
  });
  const emit = defineEmits(['click']);

  const { proxy } = getCurrentInstance();

  const active = computed(() => {
    return props.index === proxy.rootMenu.activeIndex;
  });

  const hoverBackground = computed(() => {
    return proxy.rootMenu.hoverBackground;
  });

  const backgroundColor = computed(() => {
    return proxy.rootMenu.backgroundColor || '';
  });

  const activeTextColor = computed(() => {
    return proxy.rootMenu.activeTextColor || '';
  });

  const textColor = computed(() => {
    return proxy.rootMenu.textColor || '';
  });

  const mode = computed(() => {
    return proxy.rootMenu.mode;
  });

  const itemStyle = computed(() => {
    const style = {
      color: active.value ? activeTextColor.value : textColor.value
    };
    if (mode.value === 'horizontal' && !isNested.value) {
      style.borderBottomColor = active.value
        ? (proxy.rootMenu.activeTextColor ? activeTextColor.value : '')
        : 'transparent';
    }
    return style;
  });

  const isNested = computed(() => {
    return proxy.parentMenu !== proxy.rootMenu;
  });

  defineExpose({
    active,
    hoverBackground,
    backgroundColor,
    activeTextColor,
    textColor,
    mode,
    itemStyle,
    onMouseEnter,
    onMouseLeave,
    handleClick
  });

  function onMouseEnter() {
    if (mode.value === 'horizontal' && !proxy.rootMenu.backgroundColor) return;
    proxy.$el.style.backgroundColor = hoverBackground.value;
  }

  function onMouseLeave() {
    if (mode.value === 'horizontal' && !proxy.rootMenu.backgroundColor) return;
    proxy.$el.style.backgroundColor = backgroundColor.value;
  }

  function handleClick() {
    if (!props.disabled) {
      proxy.dispatch('ElMenu', 'item-click', proxy);
      emit('click', proxy);
    }
  }

  onMounted(() => {
    proxy.parentMenu.addItem(proxy);
    proxy.rootMenu.addItem(proxy);
  });

  onBeforeUnmount(() => {
    proxy.parentMenu.removeItem(proxy);
    proxy.rootMenu.removeItem(proxy);
  });
</script>
