<template>
    <div :class="containerClass">
        <div class="p-orderlist-controls">
            <slot name="controlsstart"></slot>
            <OLButton type="button" icon="pi pi-angle-up" @click="moveUp"></OLButton>
            <OLButton type="button" icon="pi pi-angle-double-up" @click="moveTop"></OLButton>
            <OLButton type="button" icon="pi pi-angle-down" @click="moveDown"></OLButton>
            <OLButton type="button" icon="pi pi-angle-double-down" @click="moveBottom"></OLButton>
            <slot name="controlsend"></slot>
        </div>
        <div class="p-orderlist-list-container">
            <div class="p-orderlist-header" v-if="$slots.header">
                <slot name="header"></slot>
            </div>
            <transition-group ref="list" name="p-orderlist-flip" tag="ul" class="p-orderlist-list" :style="listStyle" role="listbox" aria-multiselectable="multiple">
                <template v-for="(item, i) of value">
                    <li tabindex="0" :key="getItemKey(item, i)" :class="['p-orderlist-item', {'p-highlight': isSelected(item)}]" v-ripple
                        @click="onItemClick($event, item, i)" @keydown="onItemKeyDown($event, item, i)" @touchend="onItemTouchEnd"
                        role="option" :aria-selected="isSelected(item)">
                        <slot name="item" :item="item" :index="i"> </slot>
                    </li>
                </template>
            </transition-group>
        </div>
    </div>
</template>

<script>
import Button from '../button/Button';
import ObjectUtils from '../utils/ObjectUtils';
import DomHandler from '../utils/DomHandler';
import Ripple from '../ripple/Ripple';

export default {
    components: {
        'OLButton': Button
    },
    directives: {
        'ripple': Ripple
    }
};
</script>

<script setup>
import { computed, onUpdated, ref } from 'vue';

const props = defineProps({
    value: {
        type: Array,
        default: null
    },
    selection: {
        type: Array,
        default: null
    },
    dataKey: {
        type: String,
        default: null
    },
    listStyle: {
        type: null,
        default: null
    },
    metaKeySelection: {
        type: Boolean,
        default: true
    },
    stripedRows: {
        type: Boolean,
        default: false
    }
});
const emit = defineEmits(['input', 'reorder', 'update:selection', 'selection-change']);

const list = ref(null);

const d_selection = ref(props.selection);

let itemTouched;
let reorderDirection;

const containerClass = computed(() => {
    return ['p-orderlist p-component', {
        'p-orderlist-striped': props.stripedRows
    }];
});

function getItemKey(item, index) {
    return props.dataKey ? ObjectUtils.resolveFieldData(item, props.dataKey): index;
}

function isSelected(item) {
    return ObjectUtils.findIndexInList(item, d_selection.value) != -1;
}

function moveUp() {
    if (d_selection.value) {
        let value = [...props.value];

        for (let i = 0; i < d_selection.value.length; i++) {
            let selectedItem = d_selection.value[i];
            let selectedItemIndex = ObjectUtils.findIndexInList(selectedItem, value);

            if (selectedItemIndex !== 0) {
                let movedItem = value[selectedItemIndex];
                let temp = value[selectedItemIndex - 1];
                value[selectedItemIndex - 1] = movedItem;
                value[selectedItemIndex] = temp;
            }
            else {
                break;
            }
        }

        reorderDirection = 'up';
        emit('input', value);
        emit('reorder', {
            originalEvent: event,
            value: value,
            direction: reorderDirection
        });
    }
}

function moveTop() {
    if(d_selection.value) {
        let value = [...props.value];

        for (let i = d_selection.value.length - 1; i >= 0; i--) {
            let selectedItem = d_selection.value[i];
            let selectedItemIndex = ObjectUtils.findIndexInList(selectedItem, value);

            if (selectedItemIndex !== 0) {
                let movedItem = value.splice(selectedItemIndex, 1)[0];
                value.unshift(movedItem);
            }
            else {
                break;
            }
        }

        reorderDirection = 'top';
        emit('input', value);
        emit('reorder', {
            originalEvent: event,
            value: value,
            direction: reorderDirection
        });
    }
}

function moveDown() {
    if(d_selection.value) {
        let value = [...props.value];

        for (let i = d_selection.value.length - 1; i >= 0; i--) {
            let selectedItem = d_selection.value[i];
            let selectedItemIndex = ObjectUtils.findIndexInList(selectedItem, value);

            if (selectedItemIndex !== (value.length - 1)) {
                let movedItem = value[selectedItemIndex];
                let temp = value[selectedItemIndex + 1];
                value[selectedItemIndex + 1] = movedItem;
                value[selectedItemIndex] = temp;
            }
            else {
                break;
            }
        }

        reorderDirection = 'down';
        emit('input', value);
        emit('reorder', {
            originalEvent: event,
            value: value,
            direction: reorderDirection
        });
    }
}

function moveBottom() {
    if (d_selection.value) {
        let value = [...props.value];

        for (let i = 0; i < d_selection.value.length; i++) {
            let selectedItem = d_selection.value[i];
            let selectedItemIndex = ObjectUtils.findIndexInList(selectedItem, value);

            if (selectedItemIndex !== (value.length - 1)) {
                let movedItem = value.splice(selectedItemIndex, 1)[0];
                value.push(movedItem);
            }
            else {
                break;
            }
        }

        reorderDirection = 'bottom';
        emit('input', value);
        emit('reorder', {
            originalEvent: event,
            value: value,
            direction: reorderDirection
        });
    }
}

function onItemClick(event, item, index) {
    itemTouched = false;
    let selectedIndex = ObjectUtils.findIndexInList(item, d_selection.value);
    let selected = (selectedIndex != -1);
    let metaSelection = itemTouched ? false : props.metaKeySelection;

    if (metaSelection) {
        let metaKey = (event.metaKey || event.ctrlKey);

        if (selected && metaKey) {
            d_selection.value = d_selection.value.filter((val, index) => index !== selectedIndex);
        }
        else {
            d_selection.value = (metaKey) ? d_selection.value ? [...d_selection.value] : [] : [];
            ObjectUtils.insertIntoOrderedArray(item, index, d_selection.value, props.value);
        }
    }
    else {
        if (selected) {
            d_selection.value = d_selection.value.filter((val, index) => index !== selectedIndex);
        }
        else {
            d_selection.value = d_selection.value ? [...d_selection.value] : [];
            ObjectUtils.insertIntoOrderedArray(item, index, d_selection.value, props.value);
        }
    }

    emit('update:selection', d_selection.value);
    emit('selection-change', {
        originalEvent:event,
        value: d_selection.value
    });
}

function onItemTouchEnd() {
    itemTouched = true;
}

function onItemKeyDown(event, item, index) {
    let listItem = event.currentTarget;

    switch(event.which) {
        //down
        case 40:
            var nextItem = findNextItem(listItem);
            if (nextItem) {
                nextItem.focus();
            }

            event.preventDefault();
        break;

        //up
        case 38:
            var prevItem = findPrevItem(listItem);
            if (prevItem) {
                prevItem.focus();
            }

            event.preventDefault();
        break;

        //enter
        case 13:
            onItemClick(event, item, index);
            event.preventDefault();
        break;

        default:
        break;
    }
}

function findNextItem(item) {
    let nextItem = item.nextElementSibling;

    if (nextItem)
        return !DomHandler.hasClass(nextItem, 'p-orderlist-item') ? findNextItem(nextItem) : nextItem;
    else
        return null;
}

function findPrevItem(item) {
    let prevItem = item.previousElementSibling;

    if (prevItem)
        return !DomHandler.hasClass(prevItem, 'p-orderlist-item') ? findPrevItem(prevItem) : prevItem;
    else
        return null;
}

function updateListScroll() {
    const listItems = DomHandler.find(list.value.$el, '.p-orderlist-item.p-highlight');

    if (listItems && listItems.length) {
        switch(reorderDirection) {
            case 'up':
                DomHandler.scrollInView(list.value.$el, listItems[0]);
            break;

            case 'top':
                list.value.$el.scrollTop = 0;
            break;

            case 'down':
                DomHandler.scrollInView(list.value.$el, listItems[listItems.length - 1]);
            break;

            case 'bottom':
                list.value.$el.scrollTop = list.value.$el.scrollHeight;
            break;

            default:
            break;
        }
    }
}

onUpdated(() => {
    if (reorderDirection) {
        updateListScroll();
        reorderDirection = null;
    }
});
</script>

<style>
.p-orderlist {
    display: flex;
}

.p-orderlist-controls {
    display: flex;
    flex-direction: column;
    justify-content: center;
}

.p-orderlist-list-container {
    flex: 1 1 auto;
}

.p-orderlist-list {
    list-style-type: none;
    margin: 0;
    padding: 0;
    overflow: auto;
    min-height: 12rem;
    max-height: 24rem;
}

.p-orderlist-item {
    cursor: pointer;
    overflow: hidden;
    position: relative;
}

.p-orderlist.p-state-disabled .p-orderlist-item,
.p-orderlist.p-state-disabled .p-button {
    cursor: default;
}

.p-orderlist.p-state-disabled .p-orderlist-list {
    overflow: hidden;
}
</style>
