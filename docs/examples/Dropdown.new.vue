<template>
    <div ref="container" :class="containerClass" @click="onClick($event)">
        <div class="p-hidden-accessible">
            <input ref="focusInput" type="text" :id="inputId" readonly :disabled="disabled" @focus="onFocus" @blur="onBlur" @keydown="onKeyDown" :tabindex="tabindex"
                aria-haspopup="listbox" :aria-expanded="overlayVisible" :aria-labelledby="ariaLabelledBy"/>
        </div>
        <input v-if="editable" type="text" class="p-dropdown-label p-inputtext" :disabled="disabled" @focus="onFocus" @blur="onBlur" :placeholder="placeholder" :value="editableInputValue" @input="onEditableInput"
            aria-haspopup="listbox" :aria-expanded="overlayVisible">
        <span v-if="!editable" :class="labelClass">
            <slot name="value" :value="value" :placeholder="placeholder">
                {{label}}
            </slot>
        </span>
        <i v-if="showClear && value != null" class="p-dropdown-clear-icon pi pi-times" @click="onClearClick($event)"></i>
        <div class="p-dropdown-trigger" role="button" aria-haspopup="listbox" :aria-expanded="overlayVisible">
            <slot name="indicator">
                <span class="p-dropdown-trigger-icon pi pi-chevron-down"></span>
            </slot>
        </div>
        <transition name="p-connected-overlay" @enter="onOverlayEnter" @leave="onOverlayLeave">
            <div ref="overlay" class="p-dropdown-panel p-component" v-if="overlayVisible">
                <div class="p-dropdown-header" v-if="filter">
                    <div class="p-dropdown-filter-container">
                        <input type="text" ref="filterInput" :value="filterValue" autoComplete="off" class="p-dropdown-filter p-inputtext p-component" :placeholder="filterPlaceholder" @keydown="onFilterKeyDown" @input="onFilterChange"/>
                        <span class="p-dropdown-filter-icon pi pi-search"></span>
                    </div>
                </div>
                <div ref="itemsWrapper" class="p-dropdown-items-wrapper" :style="{'max-height': scrollHeight}">
                    <ul class="p-dropdown-items" role="listbox">
                        <li v-for="(option, i) of visibleOptions" :class="['p-dropdown-item', {'p-highlight': isSelected(option), 'p-disabled': isOptionDisabled(option)}]" v-ripple
                            :aria-label="getOptionLabel(option)" :key="getOptionRenderKey(option)" @click="onOptionSelect($event, option)" role="option" :aria-selected="isSelected(option)">
                            <slot name="option" :option="option" :index="i">
                                {{getOptionLabel(option)}}
                            </slot>
                        </li>
                        <li v-if="filterValue && (!visibleOptions || (visibleOptions && visibleOptions.length === 0))" class="p-dropdown-empty-message">{{emptyFilterMessage}}</li>
                    </ul>
                </div>
            </div>
        </transition>
    </div>
</template>

<script>
import ConnectedOverlayScrollHandler from '../utils/ConnectedOverlayScrollHandler';
import ObjectUtils from '../utils/ObjectUtils';
import DomHandler from '../utils/DomHandler';
import Ripple from '../ripple/Ripple';

export default {
    directives: {
        'ripple': Ripple
    }
};
</script>

<script setup>
import { computed, getCurrentInstance, onBeforeUnmount, onUpdated, ref } from 'vue';

const props = defineProps({
    value: null,
    options: Array,
    optionLabel: null,
    optionValue: null,
    optionDisabled: null,
	scrollHeight: {
		type: String,
		default: '200px'
	},
	filter: Boolean,
    filterPlaceholder: String,
    filterLocale: String,
	editable: Boolean,
	placeholder: String,
	disabled: Boolean,
    dataKey: null,
    showClear: Boolean,
    inputId: String,
    tabindex: String,
    ariaLabelledBy: null,
    appendTo: {
        type: String,
        default: null
    },
    emptyFilterMessage: {
        type: String,
        default: 'No results found'
    }
});
const emit = defineEmits(['before-show', 'before-hide', 'input', 'show', 'hide', 'change', 'filter']);

const { proxy } = getCurrentInstance();

const overlay = ref(null);
const focusInput = ref(null);
const filterInput = ref(null);
const container = ref(null);

const focused = ref(false);
const filterValue = ref(null);
const overlayVisible = ref(false);

let currentSearchChar;
let isModelValueChanged;
let outsideClickListener;
let previousSearchChar;
let resizeListener;
let scrollHandler;
let searchTimeout;
let searchValue;

const visibleOptions = computed(() => {
    if (filterValue.value && filterValue.value.trim().length > 0)
        return props.options.filter(option => getOptionLabel(option).toLocaleLowerCase(props.filterLocale).indexOf(filterValue.value.toLocaleLowerCase(props.filterLocale)) > -1);
    else
        return props.options;
});

const containerClass = computed(() => {
    return [
        'p-dropdown p-component p-inputwrapper',
        {
            'p-disabled': props.disabled,
            'p-dropdown-clearable': props.showClear && !props.disabled,
            'p-focus': focused.value,
            'p-inputwrapper-filled': props.value,
            'p-inputwrapper-focus': focused.value || overlayVisible.value
        }
    ];
});

const labelClass = computed(() => {
    return [
        'p-dropdown-label p-inputtext',
        {
            'p-placeholder': label.value === props.placeholder,
            'p-dropdown-label-empty': !proxy.$scopedSlots['value'] && (label.value === 'p-emptylabel' || label.value.length === 0)
        }
    ];
});

const label = computed(() => {
    let selectedOption = getSelectedOption();
    if (selectedOption)
        return getOptionLabel(selectedOption);
    else
        return props.placeholder||'p-emptylabel';
});

const editableInputValue = computed(() => {
    let selectedOption = getSelectedOption();
    if (selectedOption != null)
        return getOptionLabel(selectedOption);
    else
        return props.value;
});

const equalityKey = computed(() => {
    return props.optionValue ? null : props.dataKey;
});

proxy.$watch(
    () => props.value,
    () => {
        isModelValueChanged = true;
    }
);

function getOptionLabel(option) {
    return props.optionLabel ? ObjectUtils.resolveFieldData(option, props.optionLabel) : option;
}

function getOptionValue(option) {
    return props.optionValue ? ObjectUtils.resolveFieldData(option, props.optionValue) : option;
}

function getOptionRenderKey(option) {
    return props.dataKey ? ObjectUtils.resolveFieldData(option, props.dataKey) : getOptionLabel(option);
}

function isOptionDisabled(option) {
    return props.optionDisabled ? ObjectUtils.resolveFieldData(option, props.optionDisabled) : false;
}

function getSelectedOption() {
    let selectedOption;

    if (props.value != null && props.options) {
        for (let option of props.options) {
            if ((ObjectUtils.equals(props.value, getOptionValue(option), equalityKey.value))) {
                selectedOption = option;
                break;
            }
        }
    }

    return selectedOption;
}

function isSelected(option) {
    return ObjectUtils.equals(props.value, getOptionValue(option), equalityKey.value);
}

function getSelectedOptionIndex() {
    let selectedOptionIndex = -1;

    if (props.value != null && visibleOptions.value) {
        for (let i = 0; i < visibleOptions.value.length; i++) {
            if ((ObjectUtils.equals(props.value, getOptionValue(visibleOptions.value[i]), equalityKey.value))) {
                selectedOptionIndex = i;
                break;
            }
        }
    }

    return selectedOptionIndex;
}

function show() {
    emit('before-show');
    overlayVisible.value = true;
}

function hide() {
    emit('before-hide');
    overlayVisible.value = false;
}

function onFocus() {
    focused.value = true;
}

function onBlur() {
    focused.value = false;
}

function onKeyDown(event) {
    switch(event.which) {
        //down
        case 40:
            onDownKey(event);
        break;

        //up
        case 38:
            onUpKey(event);
        break;

        //space
        case 32:
            if (!overlayVisible.value) {
                show();
                event.preventDefault();
            }
        break;

        //enter and escape
        case 13:
        case 27:
            if (overlayVisible.value) {
                hide();
                event.preventDefault();
            }
        break;

        //tab
        case 9:
            hide();
        break;

        default:
            search(event);
        break;
    }
}

function onFilterKeyDown(event) {
    switch (event.which) {
        //down
        case 40:
            onDownKey(event);
            break;

        //up
        case 38:
            onUpKey(event);
            break;

        //enter and escape
        case 13:
        case 27:
            overlayVisible.value = false;
            event.preventDefault();
        break;

        default:
        break;
    }
}

function onDownKey(event) {
    if (visibleOptions.value) {
        if (!overlayVisible.value && event.altKey) {
            show();
        }
        else {
            let nextOption = findNextOption(getSelectedOptionIndex());

            if (nextOption) {
                updateModel(event, getOptionValue(nextOption));
            }
        }
    }

    event.preventDefault();
}

function onUpKey(event) {
    if (visibleOptions.value) {
        let prevOption = findPrevOption(getSelectedOptionIndex());

        if (prevOption) {
            updateModel(event, getOptionValue(prevOption));
        }
    }

    event.preventDefault();
}

function findNextOption(index) {
    let i = index + 1;
    if (i === visibleOptions.value.length) {
        return null;
    }

    let option = visibleOptions.value[i];
    if (isOptionDisabled(option))
        return findNextOption(i);
    else
        return option;

}

function findPrevOption(index) {
    let i = index - 1;
    if (i < 0) {
        return null;
    }

    let option = visibleOptions.value[i];
    if (isOptionDisabled(option))
        return findPrevOption(i);
    else
        return option;
}

function onClearClick(event) {
    updateModel(event, null);
}

function onClick(event) {
    if (props.disabled) {
        return;
    }

    if (DomHandler.hasClass(event.target, 'p-dropdown-clear-icon') || event.target.tagName === 'INPUT') {
        return;
    }
    else if (!overlay.value || !overlay.value.contains(event.target)) {
        if (overlayVisible.value)
            hide();
        else
            show();

        focusInput.value.focus();
    }
}

function onOptionSelect(event, option) {
    let value = getOptionValue(option);
    updateModel(event, value);
    focusInput.value.focus();

    setTimeout(() => {
        hide();
    }, 200);
}

function onEditableInput(event) {
    emit('input', event.target.value);
}

function onOverlayEnter() {
    overlay.value.style.zIndex = String(DomHandler.generateZIndex());
    appendContainer();
    alignOverlay();
    bindOutsideClickListener();
    bindScrollListener();
    bindResizeListener();

    if (props.filter) {
        filterInput.value.focus();
    }

    emit('show');
}

function onOverlayLeave() {
    unbindOutsideClickListener();
    unbindScrollListener();
    unbindResizeListener();
    emit('hide');
}

function alignOverlay() {
    if (props.appendTo) {
        DomHandler.absolutePosition(overlay.value, container.value);
        overlay.value.style.minWidth = DomHandler.getOuterWidth(container.value) + 'px';
    } else {
        DomHandler.relativePosition(overlay.value, container.value);
    }
}

function updateModel(event, value) {
    emit('input', value);
    emit('change', {originalEvent: event, value: value});
}

function bindOutsideClickListener() {
    if (!outsideClickListener) {
        outsideClickListener = (event) => {
            if (overlayVisible.value && overlay.value && !container.value.contains(event.target) && !overlay.value.contains(event.target)) {
                hide();
            }
        };
        document.addEventListener('click', outsideClickListener);
    }
}

function unbindOutsideClickListener() {
    if (outsideClickListener) {
        document.removeEventListener('click', outsideClickListener);
        outsideClickListener = null;
    }
}

function bindScrollListener() {
    if (!scrollHandler) {
        scrollHandler = new ConnectedOverlayScrollHandler(proxy.$el, () => {
            if (overlayVisible.value) {
                hide();
            }
        });
    }

    scrollHandler.bindScrollListener();
}

function unbindScrollListener() {
    if (scrollHandler) {
        scrollHandler.unbindScrollListener();
    }
}

function bindResizeListener() {
    if (!resizeListener) {
        resizeListener = () => {
            if (overlayVisible.value && !DomHandler.isTouchDevice()) {
                hide();
            }
        };
        window.addEventListener('resize', resizeListener);
    }
}

function unbindResizeListener() {
    if (resizeListener) {
        window.removeEventListener('resize', resizeListener);
        resizeListener = null;
    }
}

function search(event) {
    if (!visibleOptions.value) {
        return;
    }

    if (searchTimeout) {
        clearTimeout(searchTimeout);
    }

    const char = event.key;
    previousSearchChar = currentSearchChar;
    currentSearchChar = char;

    if (previousSearchChar === currentSearchChar)
        searchValue = currentSearchChar;
    else
        searchValue = searchValue ? searchValue + char : char;

    let searchIndex = getSelectedOptionIndex();
    let newOption = searchOption(++searchIndex);

    if (newOption) {
        updateModel(event, getOptionValue(newOption));
    }

    searchTimeout = setTimeout(() => {
        searchValue = null;
    }, 250);
}

function searchOption(index) {
    let option;

    if (searchValue) {
        option = searchOptionInRange(index, visibleOptions.value.length);

        if (!option) {
            option = searchOptionInRange(0, index);
        }
    }

    return option;
}

function searchOptionInRange(start, end) {
    for (let i = start; i < end; i++) {
        let opt = visibleOptions.value[i];
        let label = getOptionLabel(opt).toLocaleLowerCase(props.filterLocale);
        if (label.startsWith(searchValue.toLocaleLowerCase(props.filterLocale))) {
            return opt;
        }
    }

    return null;
}

function appendContainer() {
    if (props.appendTo) {
        if (props.appendTo === 'body')
            document.body.appendChild(overlay.value);
        else
            document.getElementById(props.appendTo).appendChild(overlay.value);
    }
}

function restoreAppend() {
    if (overlay.value && props.appendTo) {
        if (props.appendTo === 'body')
            document.body.removeChild(overlay.value);
        else
            document.getElementById(props.appendTo).removeChild(overlay.value);
    }
}

function onFilterChange(event) {
    filterValue.value = event.target.value;
    emit('filter', {originalEvent: event, value: event.target.value});
}

function onFilterUpdated() {
    if (overlayVisible.value) {
        alignOverlay();
    }
}

function scrollValueInView() {
    if (overlay.value) {
        let selectedItem = DomHandler.findSingle(overlay.value, 'li.p-highlight');
        if (selectedItem) {
            selectedItem.scrollIntoView({ block: 'nearest', inline: 'start' });
        }
    }
}

onUpdated(() => {
    if (overlayVisible.value && isModelValueChanged) {
        scrollValueInView();
    }
    isModelValueChanged = false;

    onFilterUpdated();
});

onBeforeUnmount(() => {
    restoreAppend();
    unbindOutsideClickListener();
    unbindResizeListener();

    if (scrollHandler) {
        scrollHandler.destroy();
        scrollHandler = null;
    }
});

defineExpose({ hide });
</script>

<style>
.p-dropdown {
    display: inline-flex;
    cursor: pointer;
    position: relative;
    user-select: none;
}

.p-dropdown-clear-icon {
    position: absolute;
    top: 50%;
    margin-top: -.5rem;
}

.p-dropdown-trigger {
    display: flex;
    align-items: center;
    justify-content: center;
    flex-shrink: 0;
}

.p-dropdown-label {
    display: block;
    white-space: nowrap;
    overflow: hidden;
    flex: 1 1 auto;
    width: 1%;
    text-overflow: ellipsis;
    cursor: pointer;
}

.p-dropdown-label-empty {
    overflow: hidden;
    visibility: hidden;
}

input.p-dropdown-label  {
    cursor: default;
}

.p-dropdown .p-dropdown-panel {
    min-width: 100%;
}

.p-dropdown-panel {
    position: absolute;
    top: 0;
    left: 0;
}

.p-dropdown-items-wrapper {
    overflow: auto;
}

.p-dropdown-item {
    cursor: pointer;
    font-weight: normal;
    white-space: nowrap;
    position: relative;
    overflow: hidden;
}

.p-dropdown-items {
    margin: 0;
    padding: 0;
    list-style-type: none;
}

.p-dropdown-filter {
    width: 100%;
}

.p-dropdown-filter-container {
    position: relative;
}

.p-dropdown-filter-icon {
    position: absolute;
    top: 50%;
    margin-top: -.5rem;
}

.p-fluid .p-dropdown {
    display: flex;
}

.p-fluid .p-dropdown .p-dropdown-label {
    width: 1%;
}
</style>