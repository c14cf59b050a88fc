<template>
  <div
    :class="[
      'el-cascader-panel',
      border && 'is-bordered'
    ]"
    @keydown="handleKeyDown">
    <cascader-menu
      ref="menu"
      v-for="(menu, index) in menus"
      :index="index"
      :key="index"
      :nodes="menu"></cascader-menu>
  </div>
</template>

<script>
import CascaderMenu from './cascader-menu';
import Store from './store';
import merge from 'element-ui/src/utils/merge';
import AriaUtils from 'element-ui/src/utils/aria-utils';
import scrollIntoView from 'element-ui/src/utils/scroll-into-view';
import {
  noop,
  coerceTruthyValueToArray,
  isEqual,
  isEmpty,
  valueEquals
} from 'element-ui/src/utils/util';

const { keys: KeyCode } = AriaUtils;
const DefaultProps = {
  expandTrigger: 'click', // or hover
  multiple: false,
  checkStrictly: false, // whether all nodes can be selected
  emitPath: true, // wether to emit an array of all levels value in which node is located
  lazy: false,
  lazyLoad: noop,
  value: 'value',
  label: 'label',
  children: 'children',
  leaf: 'leaf',
  disabled: 'disabled',
  hoverThreshold: 500
};

const isLeaf = el => !el.getAttribute('aria-owns');

const getSibling = (el, distance) => {
  const { parentNode } = el;
  if (parentNode) {
    const siblings = parentNode.querySelectorAll('.el-cascader-node[tabindex="-1"]');
    const index = Array.prototype.indexOf.call(siblings, el);
    return siblings[index + distance] || null;
  }
  return null;
};

const getMenuIndex = (el, distance) => {
  if (!el) return;
  const pieces = el.id.split('-');
  return Number(pieces[pieces.length - 2]);
};

const focusNode = el => {
  if (!el) return;
  el.focus();
  !isLeaf(el) && el.click();
};

const checkNode = el => {
  if (!el) return;

  const input = el.querySelector('input');
  if (input) {
    input.click();
  } else if (isLeaf(el)) {
    el.click();
  }
};

export default {
  name: 'ElCascaderPanel'
};
</script>

<script setup>
import {
  computed,
  getCurrentInstance,
  nextTick,
  onMounted,
  provide,
  ref,
  watch
} from 'vue';

const ownProps = defineProps({
  value: {},
  options: Array,
  props: Object,
  border: {
    type: Boolean,
    default: true
  },
  renderLabel: Function
});
const emit = defineEmits([
  'input',
  'change',
  'close',
  'active-item-change',
  'expand-change'
]);

const { proxy } = getCurrentInstance();

const menu = ref(null);

const checkedValue = ref(null);
const checkedNodePaths = ref([]);
const store = ref([]);
const menus = ref([]);
const activePath = ref([]);
const loadCount = ref(0);

const config = computed(() => {
  return merge({ ...DefaultProps }, ownProps.props || {});
});

const multiple = computed(() => {
  return config.value.multiple;
});

const checkStrictly = computed(() => {
  return config.value.checkStrictly;
});

const leafOnly = computed(() => {
  return !checkStrictly.value;
});

const isHoverMenu = computed(() => {
  return config.value.expandTrigger === 'hover';
});

const renderLabelFn = computed(() => {
  return ownProps.renderLabel || proxy.$scopedSlots.default;
});

defineExpose({
  checkedValue,
  checkedNodePaths,
  store,
  menus,
  activePath,
  loadCount,
  config,
  multiple,
  checkStrictly,
  isHoverMenu,
  renderLabelFn,
  handleKeyDown,
  handleExpand,
  handleCheckChange,
  lazyLoad,
  calculateMultiCheckedValue,
  scrollIntoView: ownScrollIntoView,
  getNodeByValue,
  getFlattedNodes,
  getCheckedNodes,
  clearCheckedNodes
});

proxy.$watch(
  () => ownProps.value,
  () => {
    syncCheckedValue();
    checkStrictly.value && calculateCheckedNodePaths();
  }
);

watch(
  () => ownProps.options,
  () => {
    initStore();
  },
  { immediate: true, deep: true }
);

proxy.$watch(
  () => checkedValue.value,
  val => {
    if (!isEqual(val, ownProps.value)) {
      checkStrictly.value && calculateCheckedNodePaths();
      emit('input', val);
      emit('change', val);
    }
  }
);

function initStore() {
  const currentConfig = config.value, options = ownProps.options;
  if (currentConfig.lazy && isEmpty(options)) {
    lazyLoad();
  } else {
    store.value = new Store(options, currentConfig);
    menus.value = [store.value.getNodes()];
    syncMenuState();
  }
}

function syncCheckedValue() {
  const value = ownProps.value, currentCheckedValue = checkedValue.value;
  if (!isEqual(value, currentCheckedValue)) {
    activePath.value = [];
    checkedValue.value = value;
    syncMenuState();
  }
}

function syncMenuState() {
  const currentMultiple = multiple.value, currentCheckStrictly = checkStrictly.value;
  syncActivePath();
  currentMultiple && syncMultiCheckState();
  currentCheckStrictly && calculateCheckedNodePaths();
  nextTick(ownScrollIntoView);
}

function syncMultiCheckState() {
  const nodes = getFlattedNodes(leafOnly.value);

  nodes.forEach(node => {
    node.syncCheckState(checkedValue.value);
  });
}

function isEmptyValue(val) {
  const currentMultiple = multiple.value, currentConfig = config.value;
  const { emitPath } = currentConfig;
  if (currentMultiple || emitPath) {
    return isEmpty(val);
  }
  return false;
}

function syncActivePath() {
  const currentStore = store.value, currentMultiple = multiple.value, currentActivePath = activePath.value, currentCheckedValue = checkedValue.value;

  if (!isEmpty(currentActivePath)) {
    const nodes = currentActivePath.map(node => getNodeByValue(node.getValue()));
    expandNodes(nodes);
  } else if (!isEmptyValue(currentCheckedValue)) {
    const value = currentMultiple ? currentCheckedValue[0] : currentCheckedValue;
    const checkedNode = getNodeByValue(value) || {};
    const nodes = (checkedNode.pathNodes || []).slice(0, -1);
    expandNodes(nodes);
  } else {
    activePath.value = [];
    menus.value = [currentStore.getNodes()];
  }
}

function expandNodes(nodes) {
  nodes.forEach(node => handleExpand(node, true /* silent */));
}

function calculateCheckedNodePaths() {
  const currentCheckedValue = checkedValue.value, currentMultiple = multiple.value;
  const checkedValues = currentMultiple
    ? coerceTruthyValueToArray(currentCheckedValue)
    : [ currentCheckedValue ];
  checkedNodePaths.value = checkedValues.map(v => {
    const checkedNode = getNodeByValue(v);
    return checkedNode ? checkedNode.pathNodes : [];
  });
}

function handleKeyDown(e) {
  const { target, keyCode } = e;

  switch (keyCode) {
    case KeyCode.up:
      const prev = getSibling(target, -1);
      focusNode(prev);
      break;
    case KeyCode.down:
      const next = getSibling(target, 1);
      focusNode(next);
      break;
    case KeyCode.left:
      const preMenu = menu.value[getMenuIndex(target) - 1];
      if (preMenu) {
        const expandedNode = preMenu.$el.querySelector('.el-cascader-node[aria-expanded="true"]');
        focusNode(expandedNode);
      }
      break;
    case KeyCode.right:
      const nextMenu = menu.value[getMenuIndex(target) + 1];
      if (nextMenu) {
        const firstNode = nextMenu.$el.querySelector('.el-cascader-node[tabindex="-1"]');
        focusNode(firstNode);
      }
      break;
    case KeyCode.enter:
      checkNode(target);
      break;
    case KeyCode.esc:
    case KeyCode.tab:
      emit('close');
      break;
    default:
      return;
  }
}

function handleExpand(node, silent) {
  const currentActivePath = activePath.value;
  const { level } = node;
  const path = currentActivePath.slice(0, level - 1);
  const currentMenus = menus.value.slice(0, level);

  if (!node.isLeaf) {
    path.push(node);
    currentMenus.push(node.children);
  }

  activePath.value = path;
  menus.value = currentMenus;

  if (!silent) {
    const pathValues = path.map(node => node.getValue());
    const activePathValues = currentActivePath.map(node => node.getValue());
    if (!valueEquals(pathValues, activePathValues)) {
      emit('active-item-change', pathValues); // Deprecated
      emit('expand-change', pathValues);
    }
  }
}

function handleCheckChange(value) {
  checkedValue.value = value;
}

function lazyLoad(node, onFullfiled) {
  const currentConfig = config.value;
  if (!node) {
    node = node || { root: true, level: 0 };
    store.value = new Store([], currentConfig);
    menus.value = [store.value.getNodes()];
  }
  node.loading = true;
  const resolve = dataList => {
    const parent = node.root ? null : node;
    dataList && dataList.length && store.value.appendNodes(dataList, parent);
    node.loading = false;
    node.loaded = true;

    // dispose default value on lazy load mode
    if (Array.isArray(checkedValue.value)) {
      const nodeValue = checkedValue.value[loadCount.value++];
      const valueKey = config.value.value;
      const leafKey = config.value.leaf;

      if (Array.isArray(dataList) && dataList.filter(item => item[valueKey] === nodeValue).length > 0) {
        const checkedNode = store.value.getNodeByValue(nodeValue);

        if (!checkedNode.data[leafKey]) {
          lazyLoad(checkedNode, () => {
            handleExpand(checkedNode);
          });
        }

        if (loadCount.value === checkedValue.value.length) {
          proxy.$parent.computePresentText();
        }
      }
    }

    onFullfiled && onFullfiled(dataList);
  };
  currentConfig.lazyLoad(node, resolve);
}

/**
 * public methods
*/
function calculateMultiCheckedValue() {
  checkedValue.value = getCheckedNodes(leafOnly.value)
    .map(node => node.getValueByOption());
}

function ownScrollIntoView() {
  if (proxy.$isServer) return;

  const menus = menu.value || [];
  menus.forEach(menu => {
    const menuElement = menu.$el;
    if (menuElement) {
      const container = menuElement.querySelector('.el-scrollbar__wrap');
      const activeNode = menuElement.querySelector('.el-cascader-node.is-active') ||
        menuElement.querySelector('.el-cascader-node.in-active-path');
      scrollIntoView(container, activeNode);
    }
  });
}

function getNodeByValue(val) {
  return store.value.getNodeByValue(val);
}

function getFlattedNodes(leafOnly) {
  const cached = !config.value.lazy;
  return store.value.getFlattedNodes(leafOnly, cached);
}

function getCheckedNodes(leafOnly) {
  const currentCheckedValue = checkedValue.value, currentMultiple = multiple.value;
  if (currentMultiple) {
    const nodes = getFlattedNodes(leafOnly);
    return nodes.filter(node => node.checked);
  } else {
    return isEmptyValue(currentCheckedValue)
      ? []
      : [getNodeByValue(currentCheckedValue)];
  }
}

function clearCheckedNodes() {
  const currentConfig = config.value, currentLeafOnly = leafOnly.value;
  const { multiple, emitPath } = currentConfig;
  if (multiple) {
    getCheckedNodes(currentLeafOnly)
      .filter(node => !node.isDisabled)
      .forEach(node => node.doCheck(false));
    calculateMultiCheckedValue();
  } else {
    checkedValue.value = emitPath ? [] : null;
  }
}

provide('panel', proxy);

onMounted(() => {
  if (!isEmptyValue(ownProps.value)) {
    syncCheckedValue();
  }
});
</script>
