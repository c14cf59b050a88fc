<template>
    <div
        class="colorpicker control"
        :class="[size, {'is-expanded': expanded}]"
    >
        <b-dropdown
            v-if="!isMobileValue || inline"
            ref="dropdown"
            :position="position"
            :expanded="expanded"
            :disabled="disabled"
            :inline="inline"
            :mobile-modal="mobileModal"
            :trap-focus="trapFocus"
            :aria-role="ariaRole"
            :append-to-body="appendToBody"
            append-to-body-copy-parent
            @active-change="onActiveChange"
        >
            <template #trigger v-if="!inline">
                <slot name="trigger">
                    <b-button
                        :style="triggerStyle"
                        :expanded="expanded"
                        :disabled="disabled"
                    >
                        <span class="color-name">{{ colorFormatter(computedValue) }}</span>
                    </b-button>
                </slot>
            </template>

            <b-dropdown-item
                :disabled="disabled"
                :focusable="focusable"
                custom
                :class="{'dropdown-horizontal-colorpicker': horizontalColorPicker}"
            >
                <div>
                    <header class="colorpicker-header">
                        <template v-if="$slots.header !== undefined && $slots.header.length">
                            <slot name="header" />
                        </template>
                    </header>
                    <div class="colorpicker-content">
                        <b-colorpicker-h-s-l-representation-square
                            v-if="representation === 'square'"
                            :value="computedValue"
                            @input="updateColor"
                        />
                        <b-colorpicker-h-s-l-representation-triangle
                            v-else
                            :value="computedValue"
                            @input="updateColor"
                        />
                    </div>
                </div>
                <footer class="colorpicker-footer">
                    <b-colorpicker-alpha-slider
                        v-if="alpha"
                        :value="computedValue.alpha"
                        @input="updateAlpha"
                        :color="computedValue"
                    />
                    <slot name="footer" :color="computedValue">
                        <b-field class="colorpicker-fields" grouped>
                            <b-field horizontal label="R">
                                <b-input
                                    type="number"
                                    v-model.number="computedValue.red"
                                    @update:model-value="updateRGB"
                                    size="is-small"
                                    aria-label="Red"
                                />
                            </b-field>
                            <b-field horizontal label="G">
                                <b-input
                                    type="number"
                                    v-model.number="computedValue.green"
                                    @update:model-value="updateRGB"
                                    size="is-small"
                                    aria-label="Green"
                                />
                            </b-field>
                            <b-field horizontal label="B">
                                <b-input
                                    type="number"
                                    v-model.number="computedValue.blue"
                                    @update:model-value="updateRGB"
                                    size="is-small"
                                    aria-label="Blue"
                                />
                            </b-field>
                        </b-field>
                    </slot>
                </footer>
            </b-dropdown-item>
        </b-dropdown>
    </div>
</template>

<script lang="ts">
import type { DefineComponent, PropType } from 'vue'

import FormElementMixin from '../../utils/FormElementMixin'
import { isMobile } from '../../utils/helpers'
import config from '../../utils/config'
import Color from '../../utils/color'
import type { Rgb } from '../../utils/color'

import BButton from '../button/Button.vue'
import BDropdown from '../dropdown/Dropdown.vue'
import BDropdownItem from '../dropdown/DropdownItem.vue'
import BInput from '../input/Input.vue'
import BField from '../field/Field.vue'

import BColorpickerHSLRepresentationTriangle from './ColorpickerHSLRepresentationTriangle.vue'
import BColorpickerHSLRepresentationSquare from './ColorpickerHSLRepresentationSquare.vue'
import BColorpickerAlphaSlider from './ColorpickerAlphaSlider.vue'

type BDropdownInstance = InstanceType<typeof BDropdown>

// Interface of the `Colorpicker` component.
// Gives a separate definition to avoid circular dependencies.
// TODO: we have to learn about which properties are to be exposed to the
// implementors of custom `ColorFormatter`, and `ColorParser`.
/* eslint-disable @typescript-eslint/ban-types */
export type IColorpicker = Omit<DefineComponent<
    {}, // P(rops)
    {}, // B (raw bindings)
    {}, // D(ata)
    {}, // C(omputed)
    {} // M(ethods)
>, '$emit'> // default E(mits) type parameter would causes a `$emit` discrepancy
/* eslint-enable @typescript-eslint/ban-types */

export type ColorFormatter = (color: Color, vm?: IColorpicker) => string
export type ColorParser = (color: string | Rgb, vm?: IColorpicker) => Color

const defaultColorFormatter: ColorFormatter = (color) => {
    if (color.alpha < 1) {
        return color.toString('hexa')
    } else {
        return color.toString('hex')
    }
}

const defaultColorParser: ColorParser = (color) => {
    return Color.parse(color)
}
</script>

<script setup lang="ts">
import { computed, getCurrentInstance, provide, ref, toRef, watch } from 'vue'

/*
 * Toggle dropdown
 */
// I decided to comment out the following unused method until we come
// back to deal with the `open-on-focus` and `close-on-click` props
/*
toggle() {
    if (this.mobileNative && this.isMobile) {
        const input = this.$refs.input.$refs.input
        input.focus()
        input.click()
        return
    }
    (this.$refs.dropdown as BDropdownInstance).toggle()
}, */
defineOptions({
    name: 'BColorpicker',
    mixins: [FormElementMixin],
    inheritAttrs: false
})

const props = defineProps({
    modelValue: {
        type: [String, Object] as PropType<string | Rgb>,
        validator(value: string | Rgb) {
            return typeof value === 'string' ||
                (
                    typeof value === 'object' &&
                    typeof value.red === 'number' &&
                    typeof value.green === 'number' &&
                    typeof value.blue === 'number'
                )
        }
    },
    mobileNative: {
        type: Boolean,
        default: false
    },
    representation: {
        type: String,
        default: 'triangle',
        value(value: string) {
            return ['triangle', 'square'].some((r) => r === value)
        }
    },
    inline: Boolean,
    disabled: Boolean,
    horizontalColorPicker: {
        type: Boolean,
        default: false
    },
    colorFormatter: {
        type: Function as PropType<ColorFormatter>,
        default: (color: Color, vm?: IColorpicker) => {
            if (typeof config.defaultColorFormatter === 'function') {
                return config.defaultColorFormatter(color)
            } else {
                return defaultColorFormatter(color, vm)
            }
        }
    },
    colorParser: {
        type: Function as PropType<ColorParser>,
        default: (color: string, vm?: IColorpicker) => {
            if (typeof config.defaultColorParser === 'function') {
                return config.defaultColorParser(color)
            } else {
                return defaultColorParser(color, vm)
            }
        }
    },
    alpha: {
        type: Boolean,
        default: false
    },
    expanded: Boolean,
    position: String,
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
    openOnFocus: Boolean,
    closeOnClick: Boolean,
    appendToBody: Boolean
})
const emit = defineEmits({
    /* eslint-disable @typescript-eslint/no-unused-vars */
    'active-change': (_active: boolean) => true,
    'update:modelValue': (_value: Color) => true
    /* eslint-enable @typescript-eslint/no-unused-vars */
})

const { proxy }: any = getCurrentInstance()

const dropdown = ref<any>(null)

const color = ref(parseColor(props.modelValue))

const computedValue = computed({
    get: () => {
        return color.value
    },
    set: (value: string | Rgb) => {
        color.value = parseColor(value)
    }
})

const background = computed(() => {
    if (props.alpha) {
        return `linear-gradient(
                    45deg,
                    ${computedValue.value.toString('hex')} 50%,
                    ${computedValue.value.toString('hexa')} 50%
                )`
    } else {
        const hex = computedValue.value.toString('hex')
        return `linear-gradient(
                    45deg,
                    ${hex} 50%,
                    ${hex} 50%
                )`
    }
})

const triggerStyle = computed(() => {
    const { red, green, blue } = computedValue.value
    const light = (red * 0.299 + green * 0.587 + blue * 0.114) > 186

    return {
        backgroundColor: '#ffffff',
        backgroundImage: `
                    ${background.value},
                    linear-gradient(45deg, #c7c7c7 25%, transparent 25%, transparent 75%, #c7c7c7 75%, #c7c7c7),
                    linear-gradient(45deg, #c7c7c7 25%, transparent 25%, transparent 75%, #c7c7c7 75%, #c7c7c7)
                `,
        backgroundSize: '100% 100%, 16px 16px, 16px 16px',
        backgroundPosition: '0 0, 8px 8px, 0 0',
        color: light ? '#000000' : '#FFFFFF',
        textShadow: `0 0 2px ${light ? '#FFFFFFAA' : '#000000AA'}`
    }
})

const isMobileValue = computed(() => {
    return props.mobileNative && isMobile.any()
})

const ariaRole = computed(() => {
    if (!props.inline) {
        return 'dialog'
    } else {
        return undefined
    }
})

// Asked of the instance by what is mixed in, or by what it is handed to.
Object.defineProperties(proxy, {
    ariaRole: { get: () => ariaRole.value },
    computedValue: { get: () => computedValue.value },
    formatValue: { get: () => formatValue },
    handleOnFocus: { get: () => handleOnFocus },
    keyPress: { get: () => keyPress },
    togglePicker: { get: () => togglePicker },
    triggerStyle: { get: () => triggerStyle.value }
})

watch(
    () => props.modelValue,
    (value: any) => {
        computedValue.value = new Color(value)
    }
)

function parseColor(color: string | Rgb | Color) {
    try {
        return props.colorParser(color)
    } catch (e) {
        return new Color()
    }
}

function updateColor(value: Color) {
    value.alpha = computedValue.value.alpha
    computedValue.value = value
    emit('update:modelValue', value)
}

function updateAlpha(alpha: number) {
    computedValue.value.alpha = alpha
    emit('update:modelValue', computedValue.value)
}

function updateRGB() {
    emit('update:modelValue', computedValue.value)
}

/*
 * Format color into string
 */
function formatValue(value: Color) { // FIXME: unused?
    return value ? props.colorFormatter(value, proxy) : null
}

/*
 * Toggle datepicker
 */
function togglePicker(active: boolean) {
    if (dropdown.value) {
        const isActive = typeof active === 'boolean'
            ? active
            : !(dropdown.value as BDropdownInstance).isActive
        if (isActive) {
            (dropdown.value as BDropdownInstance).isActive = isActive
        } else if (props.closeOnClick) {
            (dropdown.value as BDropdownInstance).isActive = isActive
        }
    }
}

/*
 * Call default onFocus method and show datepicker
 */
function handleOnFocus(event: Event) {
    proxy.onFocus(event)
    if (props.openOnFocus) {
        togglePicker(true)
    }
}

/*
 * Avoid dropdown toggle when is already visible
 */
function onInputClick(event: Event) {
    if ((dropdown.value as BDropdownInstance).isActive) {
        event.stopPropagation()
    }
}

/*
 * Keypress event that is bound to the document.
 */
function keyPress({ key }: KeyboardEvent) {
    const currentDropdown = dropdown.value as BDropdownInstance
    if (currentDropdown && currentDropdown.isActive && (key === 'Escape' || key === 'Esc')) {
        togglePicker(false)
    }
}

/*
 * Emit 'blur' event on dropdown is not active (closed)
 */
function onActiveChange(value: boolean) {
    if (!value) {
        proxy.onBlur()
    }
    /*
     * Emit 'active-change' when on dropdown active state change
     */
    emit('active-change', value)
}

provide('$colorpicker', proxy)

defineExpose({
    computedValue,
    triggerStyle,
    ariaRole,
    formatValue,
    togglePicker,
    handleOnFocus,
    onInputClick,
    keyPress,
    disabled: toRef(props, 'disabled')
})
</script>
