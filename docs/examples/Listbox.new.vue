<template>
    <div :id="id" :class="cx('root')" @focusout="onFocusout" v-bind="ptmi('root')">
        <span
            ref="firstHiddenFocusableElement"
            role="presentation"
            aria-hidden="true"
            class="p-hidden-accessible p-hidden-focusable"
            :tabindex="!disabled ? tabindex : -1"
            @focus="onFirstHiddenFocus"
            v-bind="ptm('hiddenFirstFocusableEl')"
            :data-p-hidden-accessible="true"
            :data-p-hidden-focusable="true"
        ></span>
        <slot name="header" :value="modelValue" :options="visibleOptions"></slot>
        <div v-if="filter" :class="cx('header')" v-bind="ptm('header')">
            <div :class="cx('filterContainer')" v-bind="ptm('filterContainer')">
                <input
                    ref="filterInput"
                    v-model="filterValue"
                    type="text"
                    :class="cx('filterInput')"
                    :placeholder="filterPlaceholder"
                    role="searchbox"
                    autocomplete="off"
                    :aria-owns="id + '_list'"
                    :aria-activedescendant="focusedOptionId"
                    :tabindex="!disabled && !focused ? tabindex : -1"
                    @input="onFilterChange"
                    @blur="onFilterBlur"
                    @keydown="onFilterKeyDown"
                    v-bind="{ ...filterInputProps, ...ptm('filterInput') }"
                />

                <slot name="filtericon" :class="cx('filterIcon')">
                    <component :is="filterIcon ? 'span' : 'SearchIcon'" :class="[cx('filterIcon'), filterIcon]" v-bind="ptm('filterIcon')" />
                </slot>
            </div>
            <span role="status" aria-live="polite" class="p-hidden-accessible" v-bind="ptm('hiddenFilterResult')" :data-p-hidden-accessible="true">
                {{ filterResultMessageText }}
            </span>
        </div>
        <div ref="listWrapper" :class="cx('wrapper')" :style="listStyle" v-bind="ptm('wrapper')">
            <VirtualScroller :ref="virtualScrollerRef" v-bind="virtualScrollerOptions" :style="listStyle" :items="visibleOptions" :tabindex="-1" :disabled="virtualScrollerDisabled" :pt="ptm('virtualScroller')">
                <template v-slot:content="{ styleClass, contentRef, items, getItemOptions, contentStyle, itemSize }">
                    <ul
                        :ref="(el) => listRef(el, contentRef)"
                        :id="id + '_list'"
                        :class="[cx('list'), styleClass]"
                        :style="contentStyle"
                        :tabindex="-1"
                        role="listbox"
                        :aria-multiselectable="multiple"
                        :aria-label="ariaLabel"
                        :aria-labelledby="ariaLabelledby"
                        :aria-activedescendant="focused ? focusedOptionId : undefined"
                        :aria-disabled="disabled"
                        @focus="onListFocus"
                        @blur="onListBlur"
                        @keydown="onListKeyDown"
                        v-bind="ptm('list')"
                    >
                        <template v-for="(option, i) of items" :key="getOptionRenderKey(option, getOptionIndex(i, getItemOptions))">
                            <li v-if="isOptionGroup(option)" :id="id + '_' + getOptionIndex(i, getItemOptions)" :style="{ height: itemSize ? itemSize + 'px' : undefined }" :class="cx('itemGroup')" role="option" v-bind="ptm('itemGroup')">
                                <slot name="optiongroup" :option="option.optionGroup" :index="getOptionIndex(i, getItemOptions)">{{ getOptionGroupLabel(option.optionGroup) }}</slot>
                            </li>
                            <li
                                v-else
                                :id="id + '_' + getOptionIndex(i, getItemOptions)"
                                v-ripple
                                :style="{ height: itemSize ? itemSize + 'px' : undefined }"
                                :class="cx('item', { option, index: i, getItemOptions })"
                                role="option"
                                :aria-label="getOptionLabel(option)"
                                :aria-selected="isSelected(option)"
                                :aria-disabled="isOptionDisabled(option)"
                                :aria-setsize="ariaSetSize"
                                :aria-posinset="getAriaPosInset(getOptionIndex(i, getItemOptions))"
                                @click="onOptionSelect($event, option, getOptionIndex(i, getItemOptions))"
                                @mousedown="onOptionMouseDown($event, getOptionIndex(i, getItemOptions))"
                                @mousemove="onOptionMouseMove($event, getOptionIndex(i, getItemOptions))"
                                @touchend="onOptionTouchEnd()"
                                v-bind="getPTOptions(option, getItemOptions, i, 'item')"
                                :data-p-highlight="isSelected(option)"
                                :data-p-focused="focusedOptionIndex === getOptionIndex(i, getItemOptions)"
                                :data-p-disabled="isOptionDisabled(option)"
                            >
                                <slot name="option" :option="option" :index="getOptionIndex(i, getItemOptions)">{{ getOptionLabel(option) }}</slot>
                            </li>
                        </template>
                        <li v-if="filterValue && (!items || (items && items.length === 0))" :class="cx('emptyMessage')" role="option" v-bind="ptm('emptyMessage')">
                            <slot name="emptyfilter">{{ emptyFilterMessageText }}</slot>
                        </li>
                        <li v-else-if="!options || (options && options.length === 0)" :class="cx('emptyMessage')" role="option" v-bind="ptm('emptyMessage')">
                            <slot name="empty">{{ emptyMessageText }}</slot>
                        </li>
                    </ul>
                </template>
                <template v-if="$slots.loader" v-slot:loader="{ options }">
                    <slot name="loader" :options="options"></slot>
                </template>
            </VirtualScroller>
        </div>
        <slot name="footer" :value="modelValue" :options="visibleOptions"></slot>
        <span v-if="!options || (options && options.length === 0)" role="status" aria-live="polite" class="p-hidden-accessible" v-bind="ptm('hiddenEmptyMessage')" :data-p-hidden-accessible="true">
            {{ emptyMessageText }}
        </span>
        <span role="status" aria-live="polite" class="p-hidden-accessible" v-bind="ptm('hiddenSelectedMessage')" :data-p-hidden-accessible="true">
            {{ selectedMessageText }}
        </span>
        <span
            ref="lastHiddenFocusableElement"
            role="presentation"
            aria-hidden="true"
            class="p-hidden-accessible p-hidden-focusable"
            :tabindex="!disabled ? tabindex : -1"
            @focus="onLastHiddenFocus"
            v-bind="ptm('hiddenLastFocusableEl')"
            :data-p-hidden-accessible="true"
            :data-p-hidden-focusable="true"
        ></span>
    </div>
</template>

<script setup>
import { computed, getCurrentInstance, nextTick, onMounted, ref, useAttrs, watch } from 'vue';
import { FilterService } from 'primevue/api';
import SearchIcon from 'primevue/icons/search';
import Ripple from 'primevue/ripple';
import { DomHandler, ObjectUtils, UniqueComponentId } from 'primevue/utils';
import VirtualScroller from 'primevue/virtualscroller';
import BaseListbox from './BaseListbox.vue';

defineOptions({
    name: 'Listbox',
    extends: BaseListbox,
    inheritAttrs: false,
    startRangeIndex: -1,
    directives: {
        ripple: Ripple
    },
    components: {
        VirtualScroller: VirtualScroller,
        SearchIcon: SearchIcon
    }
});

const props = defineProps({});
const emit = defineEmits(['update:modelValue', 'change', 'focus', 'blur', 'filter']);

const attrs = useAttrs();
const { proxy } = getCurrentInstance();

const lastHiddenFocusableElement = ref(null);
const firstHiddenFocusableElement = ref(null);

const id = ref(attrs.id);
const filterValue = ref(null);
const focused = ref(false);
const focusedOptionIndex = ref(-1);

let list;
let optionTouched;
let searchTimeout;
let searchValue;
let startRangeIndex;
let virtualScroller;

const visibleOptions = computed(() => {
    const options = props.optionGroupLabel ? flatOptions(props.options) : props.options || [];

    return filterValue.value ? FilterService.filter(options, searchFields.value, filterValue.value, props.filterMatchMode, props.filterLocale) : options;
});

const hasSelectedOption = computed(() => {
    return ObjectUtils.isNotEmpty(props.modelValue);
});

const equalityKey = computed(() => {
    return props.optionValue ? null : props.dataKey;
});

const searchFields = computed(() => {
    return props.filterFields || [props.optionLabel];
});

const filterResultMessageText = computed(() => {
    return ObjectUtils.isNotEmpty(visibleOptions.value) ? filterMessageText.value.replaceAll('{0}', visibleOptions.value.length) : emptyFilterMessageText.value;
});

const filterMessageText = computed(() => {
    return props.filterMessage || proxy.$primevue.config.locale.searchMessage || '';
});

const emptyFilterMessageText = computed(() => {
    return props.emptyFilterMessage || proxy.$primevue.config.locale.emptySearchMessage || proxy.$primevue.config.locale.emptyFilterMessage || '';
});

const emptyMessageText = computed(() => {
    return props.emptyMessage || proxy.$primevue.config.locale.emptyMessage || '';
});

const selectionMessageText = computed(() => {
    return props.selectionMessage || proxy.$primevue.config.locale.selectionMessage || '';
});

const emptySelectionMessageText = computed(() => {
    return props.emptySelectionMessage || proxy.$primevue.config.locale.emptySelectionMessage || '';
});

const selectedMessageText = computed(() => {
    return hasSelectedOption.value ? selectionMessageText.value.replaceAll('{0}', props.multiple ? props.modelValue.length : '1') : emptySelectionMessageText.value;
});

const focusedOptionId = computed(() => {
    return focusedOptionIndex.value !== -1 ? `${id.value}_${focusedOptionIndex.value}` : null;
});

const ariaSetSize = computed(() => {
    return visibleOptions.value.filter((option) => !isOptionGroup(option)).length;
});

const virtualScrollerDisabled = computed(() => {
    return !props.virtualScrollerOptions;
});

// Asked of the instance by what is mixed in, or by what it is handed to.
Object.defineProperties(proxy, {
    filterValue: { get: () => filterValue.value },
    focused: { get: () => focused.value },
    focusedOptionId: { get: () => focusedOptionId.value },
    focusedOptionIndex: { get: () => focusedOptionIndex.value },
    getOptionIndex: { get: () => getOptionIndex },
    getPTOptions: { get: () => getPTOptions },
    hasSelectedOption: { get: () => hasSelectedOption.value },
    id: { get: () => id.value },
    isOptionDisabled: { get: () => isOptionDisabled },
    isOptionGroup: { get: () => isOptionGroup },
    isSelected: { get: () => isSelected },
    list: { get: () => list },
    scrollInView: { get: () => scrollInView },
    searchFields: { get: () => searchFields.value },
    virtualScroller: { get: () => virtualScroller }
});

watch(() => attrs.id, (newValue) => {
    id.value = newValue || UniqueComponentId();
});

watch(() => props.options, () => {
    autoUpdateModel();
});

function getOptionIndex(index, fn) {
    return virtualScrollerDisabled.value ? index : fn && fn(index)['index'];
}

function getOptionLabel(option) {
    return props.optionLabel ? ObjectUtils.resolveFieldData(option, props.optionLabel) : option;
}

function getOptionValue(option) {
    return props.optionValue ? ObjectUtils.resolveFieldData(option, props.optionValue) : option;
}

function getOptionRenderKey(option, index) {
    return (props.dataKey ? ObjectUtils.resolveFieldData(option, props.dataKey) : getOptionLabel(option)) + '_' + index;
}

function getPTOptions(option, itemOptions, index, key) {
    return proxy.ptm(key, {
        context: {
            selected: isSelected(option),
            focused: focusedOptionIndex.value === getOptionIndex(index, itemOptions),
            disabled: isOptionDisabled(option)
        }
    });
}

function isOptionDisabled(option) {
    return props.optionDisabled ? ObjectUtils.resolveFieldData(option, props.optionDisabled) : false;
}

function isOptionGroup(option) {
    return props.optionGroupLabel && option.optionGroup && option.group;
}

function getOptionGroupLabel(optionGroup) {
    return ObjectUtils.resolveFieldData(optionGroup, props.optionGroupLabel);
}

function getOptionGroupChildren(optionGroup) {
    return ObjectUtils.resolveFieldData(optionGroup, props.optionGroupChildren);
}

function getAriaPosInset(index) {
    return (props.optionGroupLabel ? index - visibleOptions.value.slice(0, index).filter((option) => isOptionGroup(option)).length : index) + 1;
}

function onFirstHiddenFocus() {
    DomHandler.focus(list);

    const firstFocusableEl = DomHandler.getFirstFocusableElement(proxy.$el, ':not([data-p-hidden-focusable="true"])');

    lastHiddenFocusableElement.value.tabIndex = DomHandler.isElement(firstFocusableEl) ? undefined : -1;
    firstHiddenFocusableElement.value.tabIndex = -1;
}

function onLastHiddenFocus(event) {
    const relatedTarget = event.relatedTarget;

    if (relatedTarget === list) {
        const firstFocusableEl = DomHandler.getFirstFocusableElement(proxy.$el, ':not([data-p-hidden-focusable="true"])');

        DomHandler.focus(firstFocusableEl);
        firstHiddenFocusableElement.value.tabIndex = undefined;
    } else {
        DomHandler.focus(firstHiddenFocusableElement.value);
    }

    lastHiddenFocusableElement.value.tabIndex = -1;
}

function onFocusout(event) {
    if (!proxy.$el.contains(event.relatedTarget) && lastHiddenFocusableElement.value && firstHiddenFocusableElement.value) {
        lastHiddenFocusableElement.value.tabIndex = firstHiddenFocusableElement.value.tabIndex = undefined;
    }
}

function onListFocus(event) {
    focused.value = true;
    focusedOptionIndex.value = focusedOptionIndex.value !== -1 ? focusedOptionIndex.value : props.autoOptionFocus ? findFirstFocusedOptionIndex() : findSelectedOptionIndex();
    autoUpdateModel();
    emit('focus', event);
}

function onListBlur(event) {
    focused.value = false;
    focusedOptionIndex.value = startRangeIndex = -1;
    searchValue = '';
    emit('blur', event);
}

function onListKeyDown(event) {
    const metaKey = event.metaKey || event.ctrlKey;

    switch (event.code) {
        case 'ArrowDown':
            onArrowDownKey(event);
            break;

        case 'ArrowUp':
            onArrowUpKey(event);
            break;

        case 'Home':
            onHomeKey(event);
            break;

        case 'End':
            onEndKey(event);
            break;

        case 'PageDown':
            onPageDownKey(event);
            break;

        case 'PageUp':
            onPageUpKey(event);
            break;

        case 'Enter':
        case 'NumpadEnter':
        case 'Space':
            onSpaceKey(event);
            break;

        case 'Tab':
            //NOOP
            break;

        case 'ShiftLeft':
        case 'ShiftRight':
            onShiftKey(event);
            break;

        default:
            if (props.multiple && event.code === 'KeyA' && metaKey) {
                const value = visibleOptions.value.filter((option) => isValidOption(option)).map((option) => getOptionValue(option));

                updateModel(event, value);

                event.preventDefault();
                break;
            }

            if (!metaKey && ObjectUtils.isPrintableCharacter(event.key)) {
                searchOptions(event, event.key);
                event.preventDefault();
            }

            break;
    }
}

function onOptionSelect(event, option, index = -1) {
    if (props.disabled || isOptionDisabled(option)) {
        return;
    }

    props.multiple ? onOptionSelectMultiple(event, option) : onOptionSelectSingle(event, option);
    optionTouched = false;
    index !== -1 && (focusedOptionIndex.value = index);
}

function onOptionMouseDown(event, index) {
    changeFocusedOptionIndex(event, index);
}

function onOptionMouseMove(event, index) {
    if (props.focusOnHover && focused.value) {
        changeFocusedOptionIndex(event, index);
    }
}

function onOptionTouchEnd() {
    if (props.disabled) {
        return;
    }

    optionTouched = true;
}

function onOptionSelectSingle(event, option) {
    let selected = isSelected(option);
    let valueChanged = false;
    let value = null;
    let metaSelection = optionTouched ? false : props.metaKeySelection;

    if (metaSelection) {
        let metaKey = event && (event.metaKey || event.ctrlKey);

        if (selected) {
            if (metaKey) {
                value = null;
                valueChanged = true;
            }
        } else {
            value = getOptionValue(option);
            valueChanged = true;
        }
    } else {
        value = selected ? null : getOptionValue(option);
        valueChanged = true;
    }

    if (valueChanged) {
        updateModel(event, value);
    }
}

function onOptionSelectMultiple(event, option) {
    let selected = isSelected(option);
    let value = null;
    let metaSelection = optionTouched ? false : props.metaKeySelection;

    if (metaSelection) {
        let metaKey = event.metaKey || event.ctrlKey;

        if (selected) {
            value = metaKey ? removeOption(option) : [getOptionValue(option)];
        } else {
            value = metaKey ? props.modelValue || [] : [];
            value = [...value, getOptionValue(option)];
        }
    } else {
        value = selected ? removeOption(option) : [...(props.modelValue || []), getOptionValue(option)];
    }

    updateModel(event, value);
}

function onOptionSelectRange(event, start = -1, end = -1) {
    start === -1 && (start = findNearestSelectedOptionIndex(end, true));
    end === -1 && (end = findNearestSelectedOptionIndex(start));

    if (start !== -1 && end !== -1) {
        const rangeStart = Math.min(start, end);
        const rangeEnd = Math.max(start, end);
        const value = visibleOptions.value
            .slice(rangeStart, rangeEnd + 1)
            .filter((option) => isValidOption(option))
            .map((option) => getOptionValue(option));

        updateModel(event, value);
    }
}

function onFilterChange(event) {
    emit('filter', { originalEvent: event, value: event.target.value });
    focusedOptionIndex.value = startRangeIndex = -1;
}

function onFilterBlur() {
    focusedOptionIndex.value = startRangeIndex = -1;
}

function onFilterKeyDown(event) {
    switch (event.code) {
        case 'ArrowDown':
            onArrowDownKey(event);
            break;

        case 'ArrowUp':
            onArrowUpKey(event);
            break;

        case 'ArrowLeft':
        case 'ArrowRight':
            onArrowLeftKey(event, true);
            break;

        case 'Home':
            onHomeKey(event, true);
            break;

        case 'End':
            onEndKey(event, true);
            break;

        case 'Enter':
        case 'NumpadEnter':
            onEnterKey(event);
            break;

        case 'ShiftLeft':
        case 'ShiftRight':
            onShiftKey(event);
            break;

        default:
            break;
    }
}

function onArrowDownKey(event) {
    const optionIndex = focusedOptionIndex.value !== -1 ? findNextOptionIndex(focusedOptionIndex.value) : findFirstFocusedOptionIndex();

    if (props.multiple && event.shiftKey) {
        onOptionSelectRange(event, startRangeIndex, optionIndex);
    }

    changeFocusedOptionIndex(event, optionIndex);
    event.preventDefault();
}

function onArrowUpKey(event) {
    const optionIndex = focusedOptionIndex.value !== -1 ? findPrevOptionIndex(focusedOptionIndex.value) : findLastFocusedOptionIndex();

    if (props.multiple && event.shiftKey) {
        onOptionSelectRange(event, optionIndex, startRangeIndex);
    }

    changeFocusedOptionIndex(event, optionIndex);
    event.preventDefault();
}

function onArrowLeftKey(event, pressedInInputText = false) {
    pressedInInputText && (focusedOptionIndex.value = -1);
}

function onHomeKey(event, pressedInInputText = false) {
    if (pressedInInputText) {
        const target = event.currentTarget;

        if (event.shiftKey) {
            target.setSelectionRange(0, event.target.selectionStart);
        } else {
            target.setSelectionRange(0, 0);
            focusedOptionIndex.value = -1;
        }
    } else {
        let metaKey = event.metaKey || event.ctrlKey;
        let optionIndex = findFirstOptionIndex();

        if (props.multiple && event.shiftKey && metaKey) {
            onOptionSelectRange(event, optionIndex, startRangeIndex);
        }

        changeFocusedOptionIndex(event, optionIndex);
    }

    event.preventDefault();
}

function onEndKey(event, pressedInInputText = false) {
    if (pressedInInputText) {
        const target = event.currentTarget;

        if (event.shiftKey) {
            target.setSelectionRange(event.target.selectionStart, target.value.length);
        } else {
            const len = target.value.length;

            target.setSelectionRange(len, len);
            focusedOptionIndex.value = -1;
        }
    } else {
        let metaKey = event.metaKey || event.ctrlKey;
        let optionIndex = findLastOptionIndex();

        if (props.multiple && event.shiftKey && metaKey) {
            onOptionSelectRange(event, startRangeIndex, optionIndex);
        }

        changeFocusedOptionIndex(event, optionIndex);
    }

    event.preventDefault();
}

function onPageUpKey(event) {
    scrollInView(0);
    event.preventDefault();
}

function onPageDownKey(event) {
    scrollInView(visibleOptions.value.length - 1);
    event.preventDefault();
}

function onEnterKey(event) {
    if (focusedOptionIndex.value !== -1) {
        if (props.multiple && event.shiftKey) onOptionSelectRange(event, focusedOptionIndex.value);
        else onOptionSelect(event, visibleOptions.value[focusedOptionIndex.value]);
    }
}

function onSpaceKey(event) {
    onEnterKey(event);
}

function onShiftKey() {
    startRangeIndex = focusedOptionIndex.value;
}

function isOptionMatched(option) {
    return isValidOption(option) && getOptionLabel(option)?.toLocaleLowerCase(props.filterLocale).startsWith(searchValue.toLocaleLowerCase(props.filterLocale));
}

function isValidOption(option) {
    return ObjectUtils.isNotEmpty(option) && !(isOptionDisabled(option) || isOptionGroup(option));
}

function isValidSelectedOption(option) {
    return isValidOption(option) && isSelected(option);
}

function isEquals(value1, value2) {
    return ObjectUtils.equals(value1, value2, equalityKey.value);
}

function isSelected(option) {
    const optionValue = getOptionValue(option);

    if (props.multiple) return (props.modelValue || []).some((value) => isEquals(value, optionValue));
    else return isEquals(props.modelValue, optionValue);
}

function findFirstOptionIndex() {
    return visibleOptions.value.findIndex((option) => isValidOption(option));
}

function findLastOptionIndex() {
    return ObjectUtils.findLastIndex(visibleOptions.value, (option) => isValidOption(option));
}

function findNextOptionIndex(index) {
    const matchedOptionIndex = index < visibleOptions.value.length - 1 ? visibleOptions.value.slice(index + 1).findIndex((option) => isValidOption(option)) : -1;

    return matchedOptionIndex > -1 ? matchedOptionIndex + index + 1 : index;
}

function findPrevOptionIndex(index) {
    const matchedOptionIndex = index > 0 ? ObjectUtils.findLastIndex(visibleOptions.value.slice(0, index), (option) => isValidOption(option)) : -1;

    return matchedOptionIndex > -1 ? matchedOptionIndex : index;
}

function findSelectedOptionIndex() {
    if (hasSelectedOption.value) {
        if (props.multiple) {
            for (let index = props.modelValue.length - 1; index >= 0; index--) {
                const value = props.modelValue[index];
                const matchedOptionIndex = visibleOptions.value.findIndex((option) => isValidSelectedOption(option) && isEquals(value, getOptionValue(option)));

                if (matchedOptionIndex > -1) return matchedOptionIndex;
            }
        } else {
            return visibleOptions.value.findIndex((option) => isValidSelectedOption(option));
        }
    }

    return -1;
}

function findFirstSelectedOptionIndex() {
    return hasSelectedOption.value ? visibleOptions.value.findIndex((option) => isValidSelectedOption(option)) : -1;
}

function findLastSelectedOptionIndex() {
    return hasSelectedOption.value ? ObjectUtils.findLastIndex(visibleOptions.value, (option) => isValidSelectedOption(option)) : -1;
}

function findNextSelectedOptionIndex(index) {
    const matchedOptionIndex = hasSelectedOption.value && index < visibleOptions.value.length - 1 ? visibleOptions.value.slice(index + 1).findIndex((option) => isValidSelectedOption(option)) : -1;

    return matchedOptionIndex > -1 ? matchedOptionIndex + index + 1 : -1;
}

function findPrevSelectedOptionIndex(index) {
    const matchedOptionIndex = hasSelectedOption.value && index > 0 ? ObjectUtils.findLastIndex(visibleOptions.value.slice(0, index), (option) => isValidSelectedOption(option)) : -1;

    return matchedOptionIndex > -1 ? matchedOptionIndex : -1;
}

function findNearestSelectedOptionIndex(index, firstCheckUp = false) {
    let matchedOptionIndex = -1;

    if (hasSelectedOption.value) {
        if (firstCheckUp) {
            matchedOptionIndex = findPrevSelectedOptionIndex(index);
            matchedOptionIndex = matchedOptionIndex === -1 ? findNextSelectedOptionIndex(index) : matchedOptionIndex;
        } else {
            matchedOptionIndex = findNextSelectedOptionIndex(index);
            matchedOptionIndex = matchedOptionIndex === -1 ? findPrevSelectedOptionIndex(index) : matchedOptionIndex;
        }
    }

    return matchedOptionIndex > -1 ? matchedOptionIndex : index;
}

function findFirstFocusedOptionIndex() {
    const selectedIndex = findFirstSelectedOptionIndex();

    return selectedIndex < 0 ? findFirstOptionIndex() : selectedIndex;
}

function findLastFocusedOptionIndex() {
    const selectedIndex = findLastSelectedOptionIndex();

    return selectedIndex < 0 ? findLastOptionIndex() : selectedIndex;
}

function searchOptions(event, char) {
    searchValue = (searchValue || '') + char;

    let optionIndex = -1;

    if (ObjectUtils.isNotEmpty(searchValue)) {
        if (focusedOptionIndex.value !== -1) {
            optionIndex = visibleOptions.value.slice(focusedOptionIndex.value).findIndex((option) => isOptionMatched(option));
            optionIndex = optionIndex === -1 ? visibleOptions.value.slice(0, focusedOptionIndex.value).findIndex((option) => isOptionMatched(option)) : optionIndex + focusedOptionIndex.value;
        } else {
            optionIndex = visibleOptions.value.findIndex((option) => isOptionMatched(option));
        }

        if (optionIndex === -1 && focusedOptionIndex.value === -1) {
            optionIndex = findFirstFocusedOptionIndex();
        }

        if (optionIndex !== -1) {
            changeFocusedOptionIndex(event, optionIndex);
        }
    }

    if (searchTimeout) {
        clearTimeout(searchTimeout);
    }

    searchTimeout = setTimeout(() => {
        searchValue = '';
        searchTimeout = null;
    }, 500);
}

function removeOption(option) {
    return props.modelValue.filter((val) => !ObjectUtils.equals(val, getOptionValue(option), equalityKey.value));
}

function changeFocusedOptionIndex(event, index) {
    if (focusedOptionIndex.value !== index) {
        focusedOptionIndex.value = index;
        scrollInView();

        if (props.selectOnFocus && !props.multiple) {
            onOptionSelect(event, visibleOptions.value[index]);
        }
    }
}

function scrollInView(index = -1) {
    nextTick(() => {
        const currentId = index !== -1 ? `${id.value}_${index}` : focusedOptionId.value;
        const element = DomHandler.findSingle(list, `li[id="${currentId}"]`);

        if (element) {
            element.scrollIntoView && element.scrollIntoView({ block: 'nearest', inline: 'nearest', behavior: 'smooth' });
        } else if (!virtualScrollerDisabled.value) {
            virtualScroller && virtualScroller.scrollToIndex(index !== -1 ? index : focusedOptionIndex.value);
        }
    });
}

function autoUpdateModel() {
    if (props.selectOnFocus && props.autoOptionFocus && !hasSelectedOption.value && !props.multiple && focused.value) {
        focusedOptionIndex.value = findFirstFocusedOptionIndex();
        onOptionSelect(null, visibleOptions.value[focusedOptionIndex.value]);
    }
}

function updateModel(event, value) {
    emit('update:modelValue', value);
    emit('change', { originalEvent: event, value });
}

function flatOptions(options) {
    return (options || []).reduce((result, option, index) => {
        result.push({ optionGroup: option, group: true, index });

        const optionGroupChildren = getOptionGroupChildren(option);

        optionGroupChildren && optionGroupChildren.forEach((o) => result.push(o));

        return result;
    }, []);
}

function listRef(el, contentRef) {
    list = el;
    contentRef && contentRef(el); // For VirtualScroller
}

function virtualScrollerRef(el) {
    virtualScroller = el;
}

onMounted(() => {
    id.value = id.value || UniqueComponentId();
    autoUpdateModel();
});
</script>
