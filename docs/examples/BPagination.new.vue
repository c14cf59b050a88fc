<template>
    <nav class="pagination" :class="rootClasses">
        <slot
            v-if="$slots.previous"
            name="previous"
            :page="
                getPage(+modelValue - 1, {
                    disabled: !hasPrev,
                    class: 'pagination-previous',
                    'aria-label': ariaPreviousLabel,
                })
            "
        >
            <b-icon
                :icon="iconPrev"
                :pack="iconPack"
                both
                aria-hidden="true"
            />
        </slot>
        <BPaginationButton
            v-else
            class="pagination-previous"
            :disabled="!hasPrev"
            :page="getPage(+modelValue - 1)"
            :aria-label="ariaPreviousLabel"
        >
            <b-icon
                :icon="iconPrev"
                :pack="iconPack"
                both
                aria-hidden="true"
            />
        </BPaginationButton>
        <slot
            v-if="$slots.next"
            name="next"
            :page="
                getPage(+modelValue + 1, {
                    disabled: !hasNext,
                    class: 'pagination-next',
                    'aria-label': ariaNextLabel,
                })
            "
        >
            <b-icon
                :icon="iconNext"
                :pack="iconPack"
                both
                aria-hidden="true"
            />
        </slot>
        <BPaginationButton
            v-else
            class="pagination-next"
            :disabled="!hasNext"
            :page="getPage(+modelValue + 1)"
            :aria-label="ariaNextLabel"
        >
            <b-icon
                :icon="iconNext"
                :pack="iconPack"
                both
                aria-hidden="true"
            />
        </BPaginationButton>

        <div class="control pagination-input">
            <input
                v-if="pageInput"
                class="input"
                :value="inputValue"
                @input="handleAllowableInputPageRange"
                @keypress="handleOnKeyPress"
                :size="pageCount.toString().length"
                :maxlength="pageCount.toString().length"
            >
        </div>

        <small class="info" v-if="simple">
            <template v-if="perPage == 1"> {{ firstItem }} / {{ total }} </template>
            <template v-else>
                {{ firstItem }}-{{ Math.min(+modelValue * +perPage, +total!) }} / {{ total }}
            </template>
        </small>
        <ul class="pagination-list" v-else>
            <!--First-->
            <li v-if="hasFirst">
                <slot v-if="$slots.default" :page="getPage(1)" />
                <BPaginationButton v-else :page="getPage(1)" />
            </li>
            <li v-if="hasFirstEllipsis">
                <span class="pagination-ellipsis">&hellip;</span>
            </li>

            <!--Pages-->
            <li v-for="page in pagesInRange" :key="page.number">
                <slot v-if="$slots.default" :page="page" />
                <BPaginationButton v-else :page="page" />
            </li>

            <!--Last-->
            <li v-if="hasLastEllipsis">
                <span class="pagination-ellipsis">&hellip;</span>
            </li>
            <li v-if="hasLast">
                <slot v-if="$slots.default" :page="getPage(pageCount)" />
                <BPaginationButton v-else :page="getPage(pageCount)" />
            </li>
        </ul>
    </nav>
</template>

<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import BPaginationButton from './PaginationButton.vue'
import type { PaginationPage } from './types'
import BIcon from '../icon/Icon.vue'
import config from '../../utils/config'
import debounce from '../../utils/debounce'

// Options for PaginationPage.
interface PaginationPageOptions {
    disabled?: boolean
    class?: string
    'aria-label'?: string
}

defineOptions({ name: 'BPagination' })

const props = defineProps({
    total: [Number, String],
    perPage: {
        type: [Number, String],
        default: 20
    },
    modelValue: {
        type: [Number, String],
        default: 1
    },
    rangeBefore: {
        type: [Number, String],
        default: 1
    },
    rangeAfter: {
        type: [Number, String],
        default: 1
    },
    size: String,
    simple: Boolean,
    rounded: Boolean,
    order: String,
    iconPack: String,
    iconPrev: {
        type: String,
        default: () => {
            return config.defaultIconPrev
        }
    },
    iconNext: {
        type: String,
        default: () => {
            return config.defaultIconNext
        }
    },
    ariaNextLabel: String,
    ariaPreviousLabel: String,
    ariaPageLabel: String,
    ariaCurrentLabel: String,
    pageInput: {
        type: Boolean,
        default: false
    },
    pageInputPosition: String,
    debouncePageInput: [Number, String]
})
const emit = defineEmits({
    /* eslint-disable @typescript-eslint/no-unused-vars */
    change: (_num: number) => true,
    'update:modelValue': (_num: number) => true
    /* eslint-enable @typescript-eslint/no-unused-vars */
})

const inputValue = ref(props.modelValue)
const debounceHandlePageInput = ref(undefined as ((event: Event) => void) | undefined)

const rootClasses = computed(() => {
    return [
        props.order,
        props.size,
        props.pageInputPosition,
        {
            'is-simple': props.simple,
            'is-rounded': props.rounded,
            'has-input': props.pageInput
        }
    ]
})

const beforeCurrent = computed(() => {
    return parseInt(props.rangeBefore + '')
})

const afterCurrent = computed(() => {
    return parseInt(props.rangeAfter + '')
})

/*
* Total page size (count).
*/
const pageCount = computed(() => {
    return Math.ceil(+props.total! / +props.perPage)
})

/*
* First item of the page (count).
*/
const firstItem = computed(() => {
    const firstItem = +props.modelValue * +props.perPage - +props.perPage + 1
    return firstItem >= 0 ? firstItem : 0
})

/*
* Check if previous button is available.
*/
const hasPrev = computed(() => {
    return +props.modelValue > 1
})

/*
 * Check if first page button should be visible.
*/
const hasFirst = computed(() => {
    return +props.modelValue >= 2 + beforeCurrent.value
})

/*
* Check if first ellipsis should be visible.
*/
const hasFirstEllipsis = computed(() => {
    return +props.modelValue >= beforeCurrent.value + 4
})

/*
* Check if last page button should be visible.
*/
const hasLast = computed(() => {
    return +props.modelValue <= pageCount.value - (1 + afterCurrent.value)
})

/*
* Check if last ellipsis should be visible.
*/
const hasLastEllipsis = computed(() => {
    return +props.modelValue < pageCount.value - (2 + afterCurrent.value)
})

/*
* Check if next button is available.
*/
const hasNext = computed(() => {
    return +props.modelValue < pageCount.value
})

/*
* Get near pages, 1 before and 1 after the current.
* Also add the click event to the array.
*/
const pagesInRange = computed(() => {
    if (props.simple) return

    let left = Math.max(1, +props.modelValue - beforeCurrent.value)
    if (left - 1 === 2) {
        left-- // Do not show the ellipsis if there is only one to hide
    }
    let right = Math.min(+props.modelValue + afterCurrent.value, pageCount.value)
    if (pageCount.value - right === 2) {
        right++ // Do not show the ellipsis if there is only one to hide
    }

    const pages = []
    for (let i = left; i <= right; i++) {
        pages.push(getPage(i))
    }
    return pages
})

/*
* If current page is trying to be greater than page count, set to last.
*/
watch(pageCount, (value: any) => {
    if (props.modelValue > value) last()
})

watch(
    () => props.modelValue,
    (value: any) => {
        inputValue.value = value
    }
)

watch(
    () => props.debouncePageInput,
    (value: any) => {
        debounceHandlePageInput.value = debounce(handleOnInputPageChange, value)
    },
    { immediate: true }
)

/*
* Previous button click listener.
*/
function prev(event?: Event) {
    changePage(+props.modelValue - 1, event)
}

/*
 * Next button click listener.
*/
function next(event?: Event) {
    changePage(+props.modelValue + 1, event)
}

/*
 * First button click listener.
*/
function first(event?: Event) {
    changePage(1, event)
}

/*
* Last button click listener.
*/
function last(event?: Event) {
    changePage(pageCount.value, event)
}

function changePage(num: number, event?: Event) {
    if (props.modelValue === num || num < 1 || num > pageCount.value) return

    emit('update:modelValue', num)
    emit('change', num)

    // Set focus on element to keep tab order
    if (event && event.target) {
        nextTick(() => (event.target! as HTMLElement).focus())
    }
}

function getPage(num: number, options: PaginationPageOptions = {}): PaginationPage {
    return {
        number: num,
        isCurrent: props.modelValue === num,
        click: (event) => changePage(num, event),
        input: (event, inputNum) => changePage(+inputNum, event),
        disabled: options.disabled || false,
        class: options.class || '',
        'aria-label':
  options['aria-label'] || getAriaPageLabel(num, props.modelValue === num)
    }
}

/*
* Get text for aria-label according to page number.
*/
function getAriaPageLabel(pageNumber: number, isCurrent: boolean) {
    if (props.ariaPageLabel && (!isCurrent || !props.ariaCurrentLabel)) {
        return props.ariaPageLabel + ' ' + pageNumber + '.'
    } else if (props.ariaPageLabel && isCurrent && props.ariaCurrentLabel) {
        return (
            props.ariaCurrentLabel +
  ', ' +
  props.ariaPageLabel +
  ' ' +
  pageNumber +
  '.'
        )
    }
    return null
}

function handleOnInputPageChange(event: Event) {
    getPage(+inputValue.value).input(event, inputValue.value)
}

function handleOnInputDebounce(event: Event) {
    if (props.debouncePageInput) {
        debounceHandlePageInput.value!(event)
    } else {
        handleOnInputPageChange(event)
    }
}

function handleOnKeyPress(event: KeyboardEvent) {
    // --- This is required to only allow numeric inputs for the page input - --- //
    // --- size attribute does not work with input type number. --- //
    const ASCIICode = event.which || event.keyCode

    if (ASCIICode >= 48 && ASCIICode <= 57) {
        return true
    } else {
        return event.preventDefault()
    }
}

function handleAllowableInputPageRange(event: Event) {
    const target = event.target! as HTMLInputElement
    if (+target.value > 0 && +target.value <= pageCount.value) {
        handleOnInputValue(event)
    } else {
        // --- It is nessacery to set inputValue to 1 and then to '' so that the DOM- --- //
        // --- will update the input component even when Backspace is used and then-
        // --- 0 us entered. --- //
        inputValue.value = 1
        inputValue.value = ''
    }
}

function handleOnInputValue(event: Event) {
    const currentInputValue = +(event.target! as HTMLInputElement).value
    inputValue.value = currentInputValue
    if (Number.isInteger(inputValue.value)) {
        handleOnInputDebounce(event)
    } else {
        // --- if NaN, then set inputValue back to current --- //
        inputValue.value = props.modelValue
    }
}

defineExpose({ prev, next, first })
</script>
