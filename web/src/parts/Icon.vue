<script setup lang="ts">
import clockwise from 'bootstrap-icons/icons/arrow-clockwise.svg?raw';
import counterclockwise from 'bootstrap-icons/icons/arrow-counterclockwise.svg?raw';
import battery from 'bootstrap-icons/icons/battery-half.svg?raw';
import book from 'bootstrap-icons/icons/journal-text.svg?raw';
import brief from 'bootstrap-icons/icons/truck-front.svg?raw';
import check from 'bootstrap-icons/icons/clipboard-check.svg?raw';
import charge from 'bootstrap-icons/icons/plug.svg?raw';
import chevron from 'bootstrap-icons/icons/chevron-right.svg?raw';
import cool from 'bootstrap-icons/icons/thermometer-half.svg?raw';
import jobs from 'bootstrap-icons/icons/list-ul.svg?raw';
import clip from 'bootstrap-icons/icons/paperclip.svg?raw';
import download from 'bootstrap-icons/icons/download.svg?raw';
import keyboard from 'bootstrap-icons/icons/keyboard.svg?raw';
import people from 'bootstrap-icons/icons/people.svg?raw';
import person from 'bootstrap-icons/icons/person.svg?raw';
import route from 'bootstrap-icons/icons/bezier2.svg?raw';
import search from 'bootstrap-icons/icons/search.svg?raw';
import upload from 'bootstrap-icons/icons/upload.svg?raw';
import network from 'bootstrap-icons/icons/diagram-2.svg?raw';
import moon from 'bootstrap-icons/icons/moon.svg?raw';
import panel from 'bootstrap-icons/icons/layout-sidebar-reverse.svg?raw';
import plus from 'bootstrap-icons/icons/plus-lg.svg?raw';
import sense from 'bootstrap-icons/icons/activity.svg?raw';
import shield from 'bootstrap-icons/icons/shield-check.svg?raw';
import sun from 'bootstrap-icons/icons/sun.svg?raw';
import trash from 'bootstrap-icons/icons/trash.svg?raw';

const icons = {
  clockwise,
  counterclockwise,
  battery,
  book,
  brief,
  charge,
  check,
  chevron,
  clip,
  cool,
  download,
  jobs,
  keyboard,
  moon,
  network,
  panel,
  people,
  person,
  plus,
  route,
  search,
  sense,
  shield,
  sun,
  trash,
  upload,
};

defineProps<{ name: keyof typeof icons; size?: number }>();
</script>

<template>
  <span class="icon" aria-hidden="true" :style="{ fontSize: `${size ?? 16}px` }" v-html="icons[name]" />
</template>

<style scoped>
.icon {
  display: inline-flex;
  line-height: 1;
  vertical-align: -0.14em;
}

.icon :deep(svg) {
  width: 1em;
  height: 1em;
}
</style>
