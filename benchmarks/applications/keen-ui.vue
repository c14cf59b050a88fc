<template>
  <main>
    <ui-alert @dismiss="shown = false" v-show="shown">Sailings are on time</ui-alert>
    <ui-button icon="add" @click="count += 1">Book {{ count }}</ui-button>
    <ui-icon-button icon="close" @click="count = 0" />
    <ui-checkbox v-model="child">A child</ui-checkbox>
    <ui-switch v-model="night">Night ferry</ui-switch>
    <ui-radio-group name="deck" :options="decks" v-model="deck">Deck</ui-radio-group>
    <ui-textbox label="Name" v-model="name" />
    <ui-collapsible title="Cargo"><ui-progress-linear :progress="count * 10" /></ui-collapsible>
    <ui-tabs>
      <ui-tab title="Sailings">Gull Island, 09:40</ui-tab>
      <ui-tab title="Berths">East quay</ui-tab>
    </ui-tabs>
    <p>{{ name }} {{ deck }} {{ child }} {{ night }}</p>
  </main>
</template>

<script>
import {
  UiAlert, UiButton, UiCheckbox, UiCollapsible, UiIconButton, UiProgressLinear, UiRadioGroup, UiSwitch, UiTab, UiTabs, UiTextbox,
} from '../src';

export default {
  name: 'Application',
  components: {
    UiAlert, UiButton, UiCheckbox, UiCollapsible, UiIconButton, UiProgressLinear, UiRadioGroup, UiSwitch, UiTab, UiTabs, UiTextbox,
  },
  data() {
    return { shown: true, count: 1, child: false, night: false, deck: 'upper', decks: ['upper', 'lower'], name: '' };
  },
};
</script>
