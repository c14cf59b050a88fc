<template>
    <div :class="cx('root')" role="tablist" v-bind="ptmi('root')">
        <div :class="cx('navContainer')" v-bind="ptm('navContainer')">
            <button
                v-if="scrollable && !isPrevButtonDisabled"
                ref="prevBtn"
                v-ripple
                type="button"
                :class="cx('previousButton')"
                :tabindex="tabindex"
                :aria-label="prevButtonAriaLabel"
                @click="onPrevButtonClick"
                v-bind="{ ...previousButtonProps, ...ptm('previousButton') }"
                data-pc-group-section="navbutton"
            >
                <slot name="previousicon">
                    <component :is="prevIcon ? 'span' : 'ChevronLeftIcon'" aria-hidden="true" :class="prevIcon" v-bind="ptm('previousIcon')" />
                </slot>
            </button>
            <div ref="content" :class="cx('navContent')" @scroll="onScroll" v-bind="ptm('navContent')">
                <ul ref="nav" :class="cx('nav')" v-bind="ptm('nav')">
                    <li
                        v-for="(tab, index) of tabs"
                        :key="getKey(tab, index)"
                        :style="getTabProp(tab, 'headerStyle')"
                        :class="cx('tab.header', { tab, index })"
                        role="presentation"
                        v-bind="{ ...getTabProp(tab, 'headerProps'), ...getTabPT(tab, 'root', index), ...getTabPT(tab, 'header', index) }"
                        data-pc-name="tabpanel"
                        :data-p-highlight="d_activeIndex === index"
                        :data-p-disabled="getTabProp(tab, 'disabled')"
                        :data-pc-index="index"
                        :data-p-active="d_activeIndex === index"
                    >
                        <a
                            :id="getTabHeaderActionId(index)"
                            v-ripple
                            :class="cx('tab.headerAction')"
                            :tabindex="getTabProp(tab, 'disabled') || !isTabActive(index) ? -1 : tabindex"
                            role="tab"
                            :aria-disabled="getTabProp(tab, 'disabled')"
                            :aria-selected="isTabActive(index)"
                            :aria-controls="getTabContentId(index)"
                            @click="onTabClick($event, tab, index)"
                            @keydown="onTabKeyDown($event, tab, index)"
                            v-bind="{ ...getTabProp(tab, 'headerActionProps'), ...getTabPT(tab, 'headerAction', index) }"
                        >
                            <span v-if="tab.props && tab.props.header" :class="cx('tab.headerTitle')" v-bind="getTabPT(tab, 'headerTitle', index)">{{ tab.props.header }}</span>
                            <component v-if="tab.children && tab.children.header" :is="tab.children.header"></component>
                        </a>
                    </li>
                    <li ref="inkbar" :class="cx('inkbar')" role="presentation" aria-hidden="true" v-bind="ptm('inkbar')"></li>
                </ul>
            </div>
            <button
                v-if="scrollable && !isNextButtonDisabled"
                ref="nextBtn"
                v-ripple
                type="button"
                :class="cx('nextButton')"
                :tabindex="tabindex"
                :aria-label="nextButtonAriaLabel"
                @click="onNextButtonClick"
                v-bind="{ ...nextButtonProps, ...ptm('nextButton') }"
                data-pc-group-section="navbutton"
            >
                <slot name="nexticon">
                    <component :is="nextIcon ? 'span' : 'ChevronRightIcon'" aria-hidden="true" :class="nextIcon" v-bind="ptm('nextIcon')" />
                </slot>
            </button>
        </div>
        <div :class="cx('panelContainer')" v-bind="ptm('panelContainer')">
            <template v-for="(tab, index) of tabs" :key="getKey(tab, index)">
                <div
                    v-if="lazy ? isTabActive(index) : true"
                    v-show="lazy ? true : isTabActive(index)"
                    :id="getTabContentId(index)"
                    :style="getTabProp(tab, 'contentStyle')"
                    :class="cx('tab.content', { tab })"
                    role="tabpanel"
                    :aria-labelledby="getTabHeaderActionId(index)"
                    v-bind="{ ...getTabProp(tab, 'contentProps'), ...getTabPT(tab, 'root', index), ...getTabPT(tab, 'content', index) }"
                    data-pc-name="tabpanel"
                    :data-pc-index="index"
                    :data-p-active="d_activeIndex === index"
                >
                    <component :is="tab"></component>
                </div>
            </template>
        </div>
    </div>
</template>

<script setup>
import ChevronLeftIcon from 'primevue/icons/chevronleft';
import ChevronRightIcon from 'primevue/icons/chevronright';
import Ripple from 'primevue/ripple';
import { DomHandler, UniqueComponentId } from 'primevue/utils';
import { mergeProps, computed, getCurrentInstance, onMounted, onUpdated, ref, useAttrs, useSlots, watch } from 'vue';
import BaseTabView from './BaseTabView.vue';

defineOptions({
    name: 'TabView',
    extends: BaseTabView,
    inheritAttrs: false,
    directives: {
        ripple: Ripple
    },
    components: {
        ChevronLeftIcon,
        ChevronRightIcon
    }
});

const props = defineProps({});
const emit = defineEmits(['update:activeIndex', 'tab-change', 'tab-click']);

const attrs = useAttrs();
const slots = useSlots();
const { proxy } = getCurrentInstance();

const content = ref(null);
const nav = ref(null);
const inkbar = ref(null);

const id = ref(attrs.id);
const d_activeIndex = ref(props.activeIndex);
const isPrevButtonDisabled = ref(true);
const isNextButtonDisabled = ref(false);

const tabs = computed(() => {
    return slots.default().reduce((tabs, child) => {
        if (isTabPanel(child)) {
            tabs.push(child);
        } else if (child.children && child.children instanceof Array) {
            child.children.forEach((nestedChild) => {
                if (isTabPanel(nestedChild)) {
                    tabs.push(nestedChild);
                }
            });
        }

        return tabs;
    }, []);
});

const prevButtonAriaLabel = computed(() => {
    return proxy.$primevue.config.locale.aria ? proxy.$primevue.config.locale.aria.previous : undefined;
});

const nextButtonAriaLabel = computed(() => {
    return proxy.$primevue.config.locale.aria ? proxy.$primevue.config.locale.aria.next : undefined;
});

// Asked of the instance by what is mixed in, or by what it is handed to.
Object.defineProperties(proxy, {
    d_activeIndex: { get: () => d_activeIndex.value },
    getTabPT: { get: () => getTabPT },
    getTabProp: { get: () => getTabProp },
    id: { get: () => id.value },
    isTabActive: { get: () => isTabActive },
    scrollInView: { get: () => scrollInView }
});

watch(
    () => attrs.id,
    (newValue) => {
        id.value = newValue || UniqueComponentId();
    }
);

watch(
    () => props.activeIndex,
    (newValue) => {
        d_activeIndex.value = newValue;

        scrollInView({ index: newValue });
    }
);

function isTabPanel(child) {
    return child.type.name === 'TabPanel';
}

function isTabActive(index) {
    return d_activeIndex.value === index;
}

function getTabProp(tab, name) {
    return tab.props ? tab.props[name] : undefined;
}

function getKey(tab, index) {
    return getTabProp(tab, 'header') || index;
}

function getTabHeaderActionId(index) {
    return `${id.value}_${index}_header_action`;
}

function getTabContentId(index) {
    return `${id.value}_${index}_content`;
}

function getTabPT(tab, key, index) {
    const count = tabs.value.length;
    const tabMetaData = {
        props: tab.props,
        parent: {
            instance: proxy,
            props: props,
            state: proxy.$data
        },
        context: {
            index,
            count,
            first: index === 0,
            last: index === count - 1,
            active: isTabActive(index)
        }
    };

    return mergeProps(proxy.ptm(`tab.${key}`, { tab: tabMetaData }), proxy.ptm(`tabpanel.${key}`, { tabpanel: tabMetaData }), proxy.ptm(`tabpanel.${key}`, tabMetaData), proxy.ptmo(getTabProp(tab, 'pt'), key, tabMetaData));
}

function onScroll(event) {
    props.scrollable && updateButtonState();

    event.preventDefault();
}

function onPrevButtonClick() {
    const currentContent = content.value;
    const width = DomHandler.getWidth(currentContent);
    const pos = currentContent.scrollLeft - width;

    currentContent.scrollLeft = pos <= 0 ? 0 : pos;
}

function onNextButtonClick() {
    const currentContent = content.value;
    const width = DomHandler.getWidth(currentContent) - getVisibleButtonWidths();
    const pos = currentContent.scrollLeft + width;
    const lastPos = currentContent.scrollWidth - width;

    currentContent.scrollLeft = pos >= lastPos ? lastPos : pos;
}

function onTabClick(event, tab, index) {
    changeActiveIndex(event, tab, index);
    emit('tab-click', { originalEvent: event, index });
}

function onTabKeyDown(event, tab, index) {
    switch (event.code) {
        case 'ArrowLeft':
            onTabArrowLeftKey(event);
            break;

        case 'ArrowRight':
            onTabArrowRightKey(event);
            break;

        case 'Home':
            onTabHomeKey(event);
            break;

        case 'End':
            onTabEndKey(event);
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
            onTabEnterKey(event, tab, index);
            break;

        default:
            break;
    }
}

function onTabArrowRightKey(event) {
    const nextHeaderAction = findNextHeaderAction(event.target.parentElement);

    nextHeaderAction ? changeFocusedTab(event, nextHeaderAction) : onTabHomeKey(event);
    event.preventDefault();
}

function onTabArrowLeftKey(event) {
    const prevHeaderAction = findPrevHeaderAction(event.target.parentElement);

    prevHeaderAction ? changeFocusedTab(event, prevHeaderAction) : onTabEndKey(event);
    event.preventDefault();
}

function onTabHomeKey(event) {
    const firstHeaderAction = findFirstHeaderAction();

    changeFocusedTab(event, firstHeaderAction);
    event.preventDefault();
}

function onTabEndKey(event) {
    const lastHeaderAction = findLastHeaderAction();

    changeFocusedTab(event, lastHeaderAction);
    event.preventDefault();
}

function onPageDownKey(event) {
    scrollInView({ index: nav.value.children.length - 2 });
    event.preventDefault();
}

function onPageUpKey(event) {
    scrollInView({ index: 0 });
    event.preventDefault();
}

function onTabEnterKey(event, tab, index) {
    changeActiveIndex(event, tab, index);

    event.preventDefault();
}

function findNextHeaderAction(tabElement, selfCheck = false) {
    const headerElement = selfCheck ? tabElement : tabElement.nextElementSibling;

    return headerElement
        ? DomHandler.getAttribute(headerElement, 'data-p-disabled') || DomHandler.getAttribute(headerElement, 'data-pc-section') === 'inkbar'
            ? findNextHeaderAction(headerElement)
            : DomHandler.findSingle(headerElement, '[data-pc-section="headeraction"]')
        : null;
}

function findPrevHeaderAction(tabElement, selfCheck = false) {
    const headerElement = selfCheck ? tabElement : tabElement.previousElementSibling;

    return headerElement
        ? DomHandler.getAttribute(headerElement, 'data-p-disabled') || DomHandler.getAttribute(headerElement, 'data-pc-section') === 'inkbar'
            ? findPrevHeaderAction(headerElement)
            : DomHandler.findSingle(headerElement, '[data-pc-section="headeraction"]')
        : null;
}

function findFirstHeaderAction() {
    return findNextHeaderAction(nav.value.firstElementChild, true);
}

function findLastHeaderAction() {
    return findPrevHeaderAction(nav.value.lastElementChild, true);
}

function changeActiveIndex(event, tab, index) {
    if (!getTabProp(tab, 'disabled') && d_activeIndex.value !== index) {
        d_activeIndex.value = index;

        emit('update:activeIndex', index);
        emit('tab-change', { originalEvent: event, index });

        scrollInView({ index });
    }
}

function changeFocusedTab(event, element) {
    if (element) {
        DomHandler.focus(element);
        scrollInView({ element });

        if (props.selectOnFocus) {
            const index = parseInt(element.parentElement.dataset.pcIndex, 10);
            const tab = tabs.value[index];

            changeActiveIndex(event, tab, index);
        }
    }
}

function scrollInView({ element, index = -1 }) {
    const currentElement = element || nav.value.children[index];

    if (currentElement) {
        currentElement.scrollIntoView && currentElement.scrollIntoView({ block: 'nearest' });
    }
}

function updateInkBar() {
    let tabHeader = nav.value.children[d_activeIndex.value];

    inkbar.value.style.width = DomHandler.getWidth(tabHeader) + 'px';
    inkbar.value.style.left = DomHandler.getOffset(tabHeader).left - DomHandler.getOffset(nav.value).left + 'px';
}

function updateButtonState() {
    const currentContent = content.value;
    const { scrollLeft, scrollWidth } = currentContent;
    const width = DomHandler.getWidth(currentContent);

    isPrevButtonDisabled.value = scrollLeft === 0;
    isNextButtonDisabled.value = parseInt(scrollLeft) === scrollWidth - width;
}

function getVisibleButtonWidths() {
    const { prevBtn, nextBtn } = proxy.$refs;

    return [prevBtn, nextBtn].reduce((acc, el) => (el ? acc + DomHandler.getWidth(el) : acc), 0);
}

onMounted(() => {
    id.value = id.value || UniqueComponentId();
    updateInkBar();
    props.scrollable && updateButtonState();
});

onUpdated(() => {
    updateInkBar();
    props.scrollable && updateButtonState();
});
</script>
