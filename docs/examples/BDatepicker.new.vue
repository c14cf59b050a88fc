<template>
    <div
        class="datepicker control"
        :class="[size, {'is-expanded': expanded}]"
    >
        <b-dropdown
            v-if="!isMobileValue || inline"
            ref="dropdown"
            :position="position"
            :disabled="disabled"
            :inline="inline"
            :mobile-modal="mobileModal"
            :trap-focus="trapFocus"
            :aria-role="ariaRole"
            :append-to-body="appendToBody"
            append-to-body-copy-parent
            @active-change="onActiveChange"
            :trigger-tabindex="-1">
            <template #trigger="props" v-if="!inline">
                <slot name="trigger" v-bind="props">
                    <b-input
                        ref="input"
                        autocomplete="off"
                        :value="formattedValue"
                        :placeholder="placeholder"
                        :size="size"
                        :icon="icon"
                        :icon-right="iconRight"
                        :icon-right-clickable="iconRightClickable"
                        :icon-pack="iconPack"
                        :rounded="rounded"
                        :loading="loading"
                        :disabled="disabled"
                        :readonly="!editable"
                        v-bind="$attrs"
                        :use-html5-validation="false"
                        @click.native="onInputClick"
                        @icon-right-click="$emit('icon-right-click', $event)"
                        @keyup.native.enter="togglePicker(true)"
                        @change.native="onChange($event.target.value)"
                        @focus="handleOnFocus" />
                </slot>
            </template>

            <b-dropdown-item
                :disabled="disabled"
                :focusable="focusable"
                custom
                :class="{'dropdown-horizontal-timepicker': horizontalTimePicker}">
                <div>
                    <header class="datepicker-header">
                        <template v-if="$slots.header !== undefined && $slots.header.length">
                            <slot name="header" />
                        </template>
                        <div
                            v-else
                            class="pagination field is-centered"
                            :class="size">
                            <a
                                v-show="!showPrev && !disabled"
                                class="pagination-previous"
                                role="button"
                                href="#"
                                :disabled="disabled"
                                :aria-label="ariaPreviousLabel"
                                @click.prevent="prev"
                                @keydown.enter.prevent="prev"
                                @keydown.space.prevent="prev">

                                <b-icon
                                    :icon="iconPrev"
                                    :pack="iconPack"
                                    both
                                    type="is-primary is-clickable"/>
                            </a>
                            <a
                                v-show="!showNext && !disabled"
                                class="pagination-next"
                                role="button"
                                href="#"
                                :disabled="disabled"
                                :aria-label="ariaNextLabel"
                                @click.prevent="next"
                                @keydown.enter.prevent="next"
                                @keydown.space.prevent="next">

                                <b-icon
                                    :icon="iconNext"
                                    :pack="iconPack"
                                    both
                                    type="is-primary is-clickable"/>
                            </a>
                            <div class="pagination-list">
                                <b-field>
                                    <b-select
                                        v-if="!isTypeMonth"
                                        v-model="focusedDateData.month"
                                        :disabled="disabled"
                                        :size="size">
                                        <option
                                            v-for="month in listOfMonths"
                                            :value="month.index"
                                            :key="month.name"
                                            :disabled="month.disabled">
                                            {{ month.name }}
                                        </option>
                                    </b-select>
                                    <b-select
                                        v-model="focusedDateData.year"
                                        :disabled="disabled"
                                        :size="size">
                                        <option
                                            v-for="year in listOfYears"
                                            :value="year"
                                            :key="year">
                                            {{ year }}
                                        </option>
                                    </b-select>
                                </b-field>
                            </div>
                        </div>
                    </header>
                    <div
                        v-if="!isTypeMonth"
                        class="datepicker-content"
                        :class="{'content-horizontal-timepicker': horizontalTimePicker}">
                        <b-datepicker-table
                            v-model="computedValue"
                            :day-names="newDayNames"
                            :month-names="newMonthNames"
                            :first-day-of-week="firstDayOfWeek"
                            :rules-for-first-week="rulesForFirstWeek"
                            :min-date="minDate"
                            :max-date="maxDate"
                            :focused="focusedDateData"
                            :disabled="disabled"
                            :unselectable-dates="unselectableDates"
                            :unselectable-days-of-week="unselectableDaysOfWeek"
                            :selectable-dates="selectableDates"
                            :events="events"
                            :indicators="indicators"
                            :date-creator="dateCreator"
                            :type-month="isTypeMonth"
                            :nearby-month-days="nearbyMonthDays"
                            :nearby-selectable-month-days="nearbySelectableMonthDays"
                            :show-week-number="showWeekNumber"
                            :week-number-clickable="weekNumberClickable"
                            :range="range"
                            :multiple="multiple"
                            @range-start="date => $emit('range-start', date)"
                            @range-end="date => $emit('range-end', date)"
                            @close="togglePicker(false)"
                            @update:focused="focusedDateData = $event" />
                    </div>
                    <div v-else>
                        <b-datepicker-month
                            v-model="computedValue"
                            :month-names="newMonthNames"
                            :min-date="minDate"
                            :max-date="maxDate"
                            :focused="focusedDateData"
                            :disabled="disabled"
                            :unselectable-dates="unselectableDates"
                            :unselectable-days-of-week="unselectableDaysOfWeek"
                            :selectable-dates="selectableDates"
                            :events="events"
                            :indicators="indicators"
                            :date-creator="dateCreator"
                            :range="range"
                            :multiple="multiple"
                            @range-start="date => $emit('range-start', date)"
                            @range-end="date => $emit('range-end', date)"
                            @close="togglePicker(false)"
                            @change-focus="changeFocus"
                            @update:focused="focusedDateData = $event" />
                    </div>
                </div>

                <footer
                    v-if="$slots.default !== undefined && $slots.default.length"
                    class="datepicker-footer"
                    :class="{'footer-horizontal-timepicker': horizontalTimePicker}">
                    <slot/>
                </footer>
            </b-dropdown-item>
        </b-dropdown>

        <b-input
            v-else
            ref="input"
            :type="!isTypeMonth ? 'date' : 'month'"
            autocomplete="off"
            :value="formatNative(computedValue)"
            :placeholder="placeholder"
            :size="size"
            :icon="icon"
            :icon-pack="iconPack"
            :rounded="rounded"
            :loading="loading"
            :max="formatNative(maxDate)"
            :min="formatNative(minDate)"
            :disabled="disabled"
            :readonly="false"
            v-bind="$attrs"
            :use-html5-validation="false"
            @change.native="onChangeNativePicker"
            @focus="onFocus"
            @blur="onBlur"/>
    </div>
</template>

<script>
import FormElementMixin from '../../utils/FormElementMixin'
import { isMobile, getMonthNames, getWeekdayNames, matchWithGroups } from '../../utils/helpers'
import config from '../../utils/config'

import Dropdown from '../dropdown/Dropdown.vue'
import DropdownItem from '../dropdown/DropdownItem.vue'
import Input from '../input/Input.vue'
import Field from '../field/Field.vue'
import Select from '../select/Select.vue'
import Icon from '../icon/Icon.vue'

import DatepickerTable from './DatepickerTable.vue'
import DatepickerMonth from './DatepickerMonth.vue'

const defaultDateFormatter = (date, vm) => {
    const targetDates = Array.isArray(date) ? date : [date]
    const dates = targetDates.map((date) => {
        const d = new Date(date.getFullYear(), date.getMonth(), date.getDate(), 12)
        return !vm.isTypeMonth ? vm.dtf.format(d) : vm.dtfMonth.format(d)
    })
    return !vm.multiple ? dates.join(' - ') : dates.join(', ')
}

const defaultDateParser = (date, vm) => {
    if (vm.dtf.formatToParts && typeof vm.dtf.formatToParts === 'function') {
        const formatRegex = (vm.isTypeMonth ? vm.dtfMonth : vm.dtf)
            .formatToParts(new Date(2000, 11, 25)).map((part) => {
                if (part.type === 'literal') {
                    return part.value
                }
                return `((?!=<${part.type}>)\\d+)`
            }).join('')
        const dateGroups = matchWithGroups(formatRegex, date)

        // We do a simple validation for the group.
        // If it is not valid, it will fallback to Date.parse below
        if (
            dateGroups.year &&
            dateGroups.year.length === 4 &&
            dateGroups.month &&
            dateGroups.month <= 12
        ) {
            if (vm.isTypeMonth) return new Date(dateGroups.year, dateGroups.month - 1)
            else if (dateGroups.day && dateGroups.day <= 31) {
                return new Date(dateGroups.year, dateGroups.month - 1, dateGroups.day, 12)
            }
        }
    }
    // Fallback if formatToParts is not supported or if we were not able to parse a valid date
    if (!vm.isTypeMonth) return new Date(Date.parse(date))
    if (date) {
        const s = date.split('/')
        const year = s[0].length === 4 ? s[0] : s[1]
        const month = s[0].length === 2 ? s[0] : s[1]
        if (year && month) {
            return new Date(parseInt(year, 10), parseInt(month - 1, 10), 1, 0, 0, 0, 0)
        }
    }
    return null
}

export default {
    name: 'BDatepicker',
    components: {
        [DatepickerTable.name]: DatepickerTable,
        [DatepickerMonth.name]: DatepickerMonth,
        [Input.name]: Input,
        [Field.name]: Field,
        [Select.name]: Select,
        [Icon.name]: Icon,
        [Dropdown.name]: Dropdown,
        [DropdownItem.name]: DropdownItem
    },
    mixins: [FormElementMixin],
    inheritAttrs: false,
    data() {
        return { _elementRef: 'input', _isDatepicker: true }
    }
}
</script>

<script setup>
import { computed, getCurrentInstance, nextTick, onBeforeUnmount, provide, ref } from 'vue'

const props = defineProps({
    value: {
        type: [Date, Array]
    },
    dayNames: {
        type: Array,
        default: () => {
            if (!Array.isArray(config.defaultDayNames)) {
                return undefined
            }
            return config.defaultDayNames
        }
    },
    monthNames: {
        type: Array,
        default: () => {
            if (!Array.isArray(config.defaultMonthNames)) {
                return undefined
            }
            return config.defaultMonthNames
        }
    },
    firstDayOfWeek: {
        type: Number,
        default: () => {
            if (typeof config.defaultFirstDayOfWeek === 'number') {
                return config.defaultFirstDayOfWeek
            } else {
                return 0
            }
        }
    },
    inline: Boolean,
    minDate: Date,
    maxDate: Date,
    focusedDate: Date,
    placeholder: String,
    editable: Boolean,
    disabled: Boolean,
    horizontalTimePicker: Boolean,
    unselectableDates: [Array, Function],
    unselectableDaysOfWeek: {
        type: Array,
        default: () => config.defaultUnselectableDaysOfWeek
    },
    selectableDates: [Array, Function],
    dateFormatter: {
        type: Function,
        default: (date, vm) => {
            if (typeof config.defaultDateFormatter === 'function') {
                return config.defaultDateFormatter(date)
            } else {
                return defaultDateFormatter(date, vm)
            }
        }
    },
    dateParser: {
        type: Function,
        default: (date, vm) => {
            if (typeof config.defaultDateParser === 'function') {
                return config.defaultDateParser(date)
            } else {
                return defaultDateParser(date, vm)
            }
        }
    },
    dateCreator: {
        type: Function,
        default: () => {
            if (typeof config.defaultDateCreator === 'function') {
                return config.defaultDateCreator()
            } else {
                return new Date()
            }
        }
    },
    mobileNative: {
        type: Boolean,
        default: () => config.defaultDatepickerMobileNative
    },
    position: String,
    iconRight: String,
    iconRightClickable: Boolean,
    events: Array,
    indicators: {
        type: String,
        default: 'dots'
    },
    openOnFocus: Boolean,
    iconPrev: {
        type: String,
        default: () => config.defaultIconPrev
    },
    iconNext: {
        type: String,
        default: () => config.defaultIconNext
    },
    yearsRange: {
        type: Array,
        default: () => config.defaultDatepickerYearsRange
    },
    type: {
        type: String,
        validator: (value) => {
            return [
                'month'
            ].indexOf(value) >= 0
        }
    },
    nearbyMonthDays: {
        type: Boolean,
        default: () => config.defaultDatepickerNearbyMonthDays
    },
    nearbySelectableMonthDays: {
        type: Boolean,
        default: () => config.defaultDatepickerNearbySelectableMonthDays
    },
    showWeekNumber: {
        type: Boolean,
        default: () => config.defaultDatepickerShowWeekNumber
    },
    weekNumberClickable: {
        type: Boolean,
        default: () => config.defaultDatepickerWeekNumberClickable
    },
    rulesForFirstWeek: {
        type: Number,
        default: () => 4
    },
    range: {
        type: Boolean,
        default: false
    },
    closeOnClick: {
        type: Boolean,
        default: true
    },
    multiple: {
        type: Boolean,
        default: false
    },
    mobileModal: {
        type: Boolean,
        default: () => config.defaultDatepickerMobileModal
    },
    focusable: {
        type: Boolean,
        default: true
    },
    trapFocus: {
        type: Boolean,
        default: () => config.defaultTrapFocus
    },
    appendToBody: Boolean,
    ariaNextLabel: String,
    ariaPreviousLabel: String
})
const emit = defineEmits([
    'input',
    'change-month',
    'change-year',
    'active-change',
    'icon-right-click',
    'range-start',
    'range-end'
])

const { proxy } = getCurrentInstance()

const input = ref(null)
const dropdown = ref(null)

const focusedDate = (Array.isArray(props.value) ? props.value[0] : (props.value)) ||
    props.focusedDate || props.dateCreator()

if (!props.value && props.maxDate && props.maxDate.getFullYear() < focusedDate.getFullYear()) {
    focusedDate.setFullYear(props.maxDate.getFullYear())
}
const dateSelected = ref(props.value)
const focusedDateData = ref({
    day: focusedDate.getDate(),
    month: focusedDate.getMonth(),
    year: focusedDate.getFullYear()
})

const computedValue = computed({
    get: () => {
        return dateSelected.value
    },
    set: (value) => {
        updateInternalState(value)
        if (!props.multiple) togglePicker(false)
        emit('input', value)
        if (props.useHtml5Validation) {
            nextTick(() => {
                proxy.checkHtml5Validity()
            })
        }
    }
})

const formattedValue = computed(() => {
    return formatValue(computedValue.value)
})

const localeOptions = computed(() => {
    return new Intl.DateTimeFormat(props.locale, {
        year: 'numeric',
        month: 'numeric'
    }).resolvedOptions()
})

const dtf = computed(() => {
    return new Intl.DateTimeFormat(props.locale)
})

const dtfMonth = computed(() => {
    return new Intl.DateTimeFormat(props.locale, {
        year: localeOptions.value.year || 'numeric',
        month: localeOptions.value.month || '2-digit'
    })
})

const newMonthNames = computed(() => {
    if (Array.isArray(props.monthNames)) {
        return props.monthNames
    }
    return getMonthNames(props.locale)
})

const newDayNames = computed(() => {
    if (Array.isArray(props.dayNames)) {
        return props.dayNames
    }
    return getWeekdayNames(props.locale)
})

const listOfMonths = computed(() => {
    let minMonth = 0
    let maxMonth = 12
    if (props.minDate && focusedDateData.value.year === props.minDate.getFullYear()) {
        minMonth = props.minDate.getMonth()
    }
    if (props.maxDate && focusedDateData.value.year === props.maxDate.getFullYear()) {
        maxMonth = props.maxDate.getMonth()
    }
    return newMonthNames.value.map((name, index) => {
        return {
            name: name,
            index: index,
            disabled: index < minMonth || index > maxMonth
        }
    })
})

/*
 * Returns an array of years for the year dropdown. If earliest/latest
 * dates are set by props, range of years will fall within those dates.
 */
const listOfYears = computed(() => {
    let latestYear = focusedDateData.value.year + props.yearsRange[1]
    if (props.maxDate && props.maxDate.getFullYear() < latestYear) {
        latestYear = Math.max(props.maxDate.getFullYear(), focusedDateData.value.year)
    }

    let earliestYear = focusedDateData.value.year + props.yearsRange[0]
    if (props.minDate && props.minDate.getFullYear() > earliestYear) {
        earliestYear = Math.min(props.minDate.getFullYear(), focusedDateData.value.year)
    }

    const arrayOfYears = []
    for (let i = earliestYear; i <= latestYear; i++) {
        arrayOfYears.push(i)
    }

    return arrayOfYears.reverse()
})

const showPrev = computed(() => {
    if (!props.minDate) return false
    if (isTypeMonth.value) {
        return focusedDateData.value.year <= props.minDate.getFullYear()
    }
    const dateToCheck = new Date(focusedDateData.value.year, focusedDateData.value.month)
    const date = new Date(props.minDate.getFullYear(), props.minDate.getMonth())
    return (dateToCheck <= date)
})

const showNext = computed(() => {
    if (!props.maxDate) return false
    if (isTypeMonth.value) {
        return focusedDateData.value.year >= props.maxDate.getFullYear()
    }
    const dateToCheck = new Date(focusedDateData.value.year, focusedDateData.value.month)
    const date = new Date(props.maxDate.getFullYear(), props.maxDate.getMonth())
    return (dateToCheck >= date)
})

const isMobileValue = computed(() => {
    return props.mobileNative && isMobile.any()
})

const isTypeMonth = computed(() => {
    return props.type === 'month'
})

const ariaRole = computed(() => {
    if (!props.inline) {
        return 'dialog'
    }
})

defineExpose({
    dateSelected,
    focusedDateData,
    computedValue,
    formattedValue,
    dtf,
    dtfMonth,
    newMonthNames,
    newDayNames,
    listOfMonths,
    listOfYears,
    isTypeMonth,
    ariaRole,
    onChange,
    formatValue,
    prev,
    next,
    onChangeNativePicker,
    updateInternalState,
    togglePicker,
    handleOnFocus,
    toggle,
    keyPress,
    changeFocus
})

/**
 * When v-model is changed:
 *   1. Update internal value.
 *   2. If it's invalid, validate again.
 */
proxy.$watch(() => props.value, (value) => {
    updateInternalState(value)
    if (!props.multiple) togglePicker(false)
})

proxy.$watch(() => props.focusedDate, (value) => {
    if (value) {
        focusedDateData.value = {
            day: value.getDate(),
            month: value.getMonth(),
            year: value.getFullYear()
        }
    }
})

/*
 * Emit input event on month and/or year change
 */
proxy.$watch(() => focusedDateData.value?.month, (value) => {
    emit('change-month', value)
})

proxy.$watch(() => focusedDateData.value?.year, (value) => {
    emit('change-year', value)
})

/*
 * Parse string into date
 */
function onChange(value) {
    const date = props.dateParser(value, proxy)
    if (date && (!isNaN(date) ||
        (Array.isArray(date) && date.length === 2 && !isNaN(date[0]) && !isNaN(date[1])))) {
        computedValue.value = date
    } else {
        // Force refresh input value when not valid date
        computedValue.value = null
        if (input.value) {
            input.value.newValue = computedValue.value
        }
    }
}

/*
 * Format date into string
 */
function formatValue(value) {
    if (Array.isArray(value)) {
        const isArrayWithValidDates = Array.isArray(value) && value.every((v) => !isNaN(v))
        return isArrayWithValidDates ? props.dateFormatter([...value], proxy) : null
    }
    return (value && !isNaN(value)) ? props.dateFormatter(value, proxy) : null
}

/*
 * Either decrement month by 1 if not January or decrement year by 1
 * and set month to 11 (December) or decrement year when 'month'
 */
function prev() {
    if (props.disabled) return

    if (isTypeMonth.value) {
        focusedDateData.value.year -= 1
    } else {
        if (focusedDateData.value.month > 0) {
            focusedDateData.value.month -= 1
        } else {
            focusedDateData.value.month = 11
            focusedDateData.value.year -= 1
        }
    }
}

/*
 * Either increment month by 1 if not December or increment year by 1
 * and set month to 0 (January) or increment year when 'month'
 */
function next() {
    if (props.disabled) return

    if (isTypeMonth.value) {
        focusedDateData.value.year += 1
    } else {
        if (focusedDateData.value.month < 11) {
            focusedDateData.value.month += 1
        } else {
            focusedDateData.value.month = 0
            focusedDateData.value.year += 1
        }
    }
}

function formatNative(value) {
    return isTypeMonth.value
        ? formatYYYYMM(value) : formatYYYYMMDD(value)
}

/*
 * Format date into string 'YYYY-MM-DD'
 */
function formatYYYYMMDD(value) {
    const date = new Date(value)
    if (value && !isNaN(date)) {
        const year = date.getFullYear()
        const month = date.getMonth() + 1
        const day = date.getDate()
        return year + '-' +
            ((month < 10 ? '0' : '') + month) + '-' +
            ((day < 10 ? '0' : '') + day)
    }
    return ''
}

/*
 * Format date into string 'YYYY-MM'
 */
function formatYYYYMM(value) {
    const date = new Date(value)
    if (value && !isNaN(date)) {
        const year = date.getFullYear()
        const month = date.getMonth() + 1
        return year + '-' +
            ((month < 10 ? '0' : '') + month)
    }
    return ''
}

/*
 * Parse date from string
 */
function onChangeNativePicker(event) {
    const date = event.target.value
    const s = date ? date.split('-') : []
    if (s.length === 3) {
        const year = parseInt(s[0], 10)
        const month = parseInt(s[1]) - 1
        const day = parseInt(s[2])
        computedValue.value = new Date(year, month, day)
    } else {
        computedValue.value = null
    }
}

function updateInternalState(value) {
    if (dateSelected.value === value) return
    const isArray = Array.isArray(value)
    const currentDate = isArray
        ? (!value.length ? props.dateCreator() : value[value.length - 1])
        : (!value ? props.dateCreator() : value)
    if (!isArray ||
        (isArray && dateSelected.value && value.length > dateSelected.value.length)) {
        focusedDateData.value = {
            day: currentDate.getDate(),
            month: currentDate.getMonth(),
            year: currentDate.getFullYear()
        }
    }
    dateSelected.value = value
}

/*
 * Toggle datepicker
 */
function togglePicker(active) {
    if (dropdown.value) {
        const isActive = typeof active === 'boolean'
            ? active
            : !dropdown.value.isActive
        if (isActive) {
            dropdown.value.isActive = isActive
        } else if (props.closeOnClick) {
            dropdown.value.isActive = isActive
        }
    }
}

/*
 * Call default onFocus method and show datepicker
 */
function handleOnFocus(event) {
    proxy.onFocus(event)
    if (props.openOnFocus) {
        togglePicker(true)
    }
}

/*
 * Toggle dropdown
 */
function toggle() {
    if (props.mobileNative && isMobileValue.value) {
        const currentInput = input.value.$refs.input
        currentInput.focus()
        currentInput.click()
        return
    }
    dropdown.value.toggle()
}

/*
 * Avoid dropdown toggle when is already visible
 */
function onInputClick(event) {
    if (dropdown.value.isActive) {
        event.stopPropagation()
    }
}

/**
 * Keypress event that is bound to the document.
 */
function keyPress({ key }) {
    if (dropdown.value && dropdown.value.isActive && (key === 'Escape' || key === 'Esc')) {
        togglePicker(false)
    }
}

/**
 * Emit 'blur' event on dropdown is not active (closed)
 */
function onActiveChange(value) {
    if (!value) {
        proxy.onBlur()
    }
    /*
     * Emit 'active-change' when on dropdown active state change
     */
    emit('active-change', value)
}

function changeFocus(day) {
    focusedDateData.value = {
        day: day.getDate(),
        month: day.getMonth(),
        year: day.getFullYear()
    }
}

provide('$datepicker', proxy)

if (typeof window !== 'undefined') {
    document.addEventListener('keyup', keyPress)
}

onBeforeUnmount(() => {
    if (typeof window !== 'undefined') {
        document.removeEventListener('keyup', keyPress)
    }
})
</script>
