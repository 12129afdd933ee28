import type { Station } from '@torvek/core/document';
import type { Component } from 'vue';
import { panels as packPanels, packPanelOf, packPanelOfRule } from './pack/panels';
import { panelOfRule as protectPanelOfRule, panels as protectPanels, protectPanelOf } from './protect/panels';
import { panels as routePanels, routePanelOf, routePanelOfRule } from './route/panels';
import { coolPanelOf, coolPanelOfRule, panels as coolPanels } from './cool/panels';
import { chargePanelOf, chargePanelOfRule, panels as chargePanels } from './charge/panels';
import { panels as sensePanels, sensePanelOf, sensePanelOfRule } from './sense/panels';
import { panels as provePanels, provePanelOf, provePanelOfRule } from './prove/panels';

/** What an address asks for. */
export interface Asked {
  panel?: unknown;
  at?: unknown;
}

/** A station of a job: what rail, finder, keys and router know of it. */
export interface StationEntry {
  title: string;
  icon: 'brief' | 'battery' | 'network' | 'shield' | 'route' | 'cool' | 'charge' | 'sense' | 'check' | 'book';
  /** The letter after `g`. */
  key: string;
  /** Its code is loaded when it is opened. */
  load: () => Promise<{ default: Component }>;
  /** Where it has several panels: which there are, which an address asks for, and which shows what a rule is about. */
  panels?: {
    all: readonly { id: string; title: string }[];
    of(asked: Asked): string;
    ofRule(rule: string, subjects: readonly string[]): string;
  };
}

export const stationList: Record<Station, StationEntry> = {
  brief: {
    title: 'Brief',
    icon: 'brief',
    key: 'b',
    load: () => import('./brief/BriefStation.vue'),
  },
  pack: {
    title: 'Pack',
    icon: 'battery',
    key: 'p',
    load: () => import('./pack/PackStation.vue'),
    panels: { all: packPanels, of: packPanelOf, ofRule: packPanelOfRule },
  },
  network: {
    title: 'Network',
    icon: 'network',
    key: 'n',
    load: () => import('./network/NetworkStation.vue'),
  },
  protect: {
    title: 'Protect',
    icon: 'shield',
    key: 't',
    load: () => import('./protect/ProtectStation.vue'),
    panels: { all: protectPanels, of: protectPanelOf, ofRule: protectPanelOfRule },
  },
  route: {
    title: 'Route',
    icon: 'route',
    key: 'r',
    load: () => import('./route/RouteStation.vue'),
    panels: { all: routePanels, of: routePanelOf, ofRule: routePanelOfRule },
  },
  cool: {
    title: 'Cool',
    icon: 'cool',
    key: 'c',
    load: () => import('./cool/CoolStation.vue'),
    panels: { all: coolPanels, of: coolPanelOf, ofRule: coolPanelOfRule },
  },
  charge: {
    title: 'Charge',
    icon: 'charge',
    key: 'h',
    load: () => import('./charge/ChargeStation.vue'),
    panels: { all: chargePanels, of: chargePanelOf, ofRule: chargePanelOfRule },
  },
  sense: {
    title: 'Sense',
    icon: 'sense',
    key: 'e',
    load: () => import('./sense/SenseStation.vue'),
    panels: { all: sensePanels, of: sensePanelOf, ofRule: sensePanelOfRule },
  },
  prove: {
    title: 'Prove',
    icon: 'check',
    key: 'v',
    load: () => import('./prove/ProveStation.vue'),
    panels: { all: provePanels, of: provePanelOf, ofRule: provePanelOfRule },
  },
  book: {
    title: 'Book',
    icon: 'book',
    key: 'k',
    load: () => import('./book/BookStation.vue'),
  },
};
