<script setup lang="ts">
import { runGeometry, type Id } from '@torvek/core/document';
import { nearestTo } from '@torvek/core/space';
import { useElementSize } from '@vueuse/core';
import {
  AmbientLight,
  DirectionalLight,
  PerspectiveCamera,
  Scene,
  Vector3,
  WebGLRenderer,
  type Group,
} from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { download, fileName } from '../../../parts/pdf';
import { token } from '../../../parts/plot/echarts';
import { useJob } from '../../../stores/job';
import { discard, sceneOf, type Spot } from './scene';

/** The vehicle with its runs in three dimensions, to look around; drawn only when something moves. */
const props = defineProps<{ runId: Id }>();
const job = useJob();
const canvas = ref<HTMLCanvasElement | null>(null);
const holder = ref<HTMLElement | null>(null);
const { width, height } = useElementSize(holder);
const missing = ref(false);
const scene = new Scene();
const camera = new PerspectiveCamera(40, 2, 0.05, 100);
let renderer: WebGLRenderer | null = null;
let controls: OrbitControls | null = null;
let drawn: Group | null = null;

const spots = computed((): Spot[] =>
  job.checks.flatMap((check) => {
    if (check.rule.id !== 'route.separation' || check.state !== 'raised') return [];
    const run = job.design.runs?.[check.subjects.find((id) => job.design.runs?.[id] !== undefined) ?? ''];
    const line =
      job.design.hazards?.[check.subjects.find((id) => job.design.hazards?.[id] !== undefined) ?? ''];
    const found = run === undefined ? null : runGeometry(run);
    const points = (line?.points ?? []).flatMap(({ xM, yM, zM }) =>
      xM === undefined || yM === undefined || zM === undefined ? [] : [[xM, yM, zM] as const],
    );
    return found === null || points.length < 2 ? [] : [{ point: nearestTo(found.path, points).point }];
  }),
);
const colours = () => ({
  hv: token('hv'),
  soft: token('soft'),
  line: token('line'),
  coolant: token('coolant'),
  lowvolt: token('lowvolt'),
  stop: token('stop'),
  ink: token('ink'),
});
function draw(): void {
  if (renderer === null || width.value < 10) return;
  renderer.setSize(width.value, height.value, false);
  camera.aspect = width.value / Math.max(height.value, 1);
  camera.updateProjectionMatrix();
  renderer.render(scene, camera);
}
function build(): void {
  if (drawn !== null) {
    scene.remove(drawn);
    discard(drawn);
  }
  drawn = sceneOf(job.design, props.runId, spots.value, colours());
  scene.add(drawn);
  draw();
}
/** From the right and above, the whole vehicle. */
function home(): void {
  const { wheelbaseM = 2.6 } = job.design.vehicle;
  const middle = new Vector3(-wheelbaseM / 2, 0.7, 0);
  const far = Math.min(Math.max(wheelbaseM, 1.5), 12);
  camera.position.set(middle.x + far * 0.8, 0.7 + far * 0.8, far * 1.5);
  if (controls !== null) {
    controls.target.copy(middle);
    controls.update();
  }
  draw();
}
onMounted(() => {
  try {
    renderer = new WebGLRenderer({ canvas: canvas.value!, antialias: true, alpha: true });
  } catch {
    missing.value = true;
    return;
  }
  renderer.setPixelRatio(Math.min(window.devicePixelRatio, 2));
  const sun = new DirectionalLight('#ffffff', 1.6);
  sun.position.set(4, 8, 6);
  scene.add(new AmbientLight('#ffffff', 1.7), sun);
  controls = new OrbitControls(camera, canvas.value!);
  controls.addEventListener('change', draw);
  build();
  home();
});
watch([() => job.design, () => props.runId, spots], build);
watch([width, height], draw);
onBeforeUnmount(() => {
  controls?.dispose();
  if (drawn !== null) discard(drawn);
  renderer?.dispose();
});
const keys: Record<string, [turn: number, lift: number]> = {
  ArrowLeft: [-0.12, 0],
  ArrowRight: [0.12, 0],
  ArrowUp: [0, 0.12],
  ArrowDown: [0, -0.12],
};
function keyed(event: KeyboardEvent): void {
  const by = keys[event.key];
  if (controls === null) return;
  const arm = camera.position.clone().sub(controls.target);
  if (by !== undefined) {
    const flat = Math.hypot(arm.x, arm.z);
    const turn = Math.atan2(arm.z, arm.x) + by[0];
    const lift = Math.max(-1.4, Math.min(1.4, Math.atan2(arm.y, flat) + by[1]));
    const long = arm.length();
    arm
      .set(Math.cos(lift) * Math.cos(turn), Math.sin(lift), Math.cos(lift) * Math.sin(turn))
      .multiplyScalar(long);
  } else if (event.key === '+' || event.key === '-') arm.multiplyScalar(event.key === '+' ? 0.88 : 1.14);
  else return;
  event.preventDefault();
  camera.position.copy(controls.target).add(arm);
  controls.update();
  draw();
}
const said = ref<string | null>(null);
/** The same as a file that others open: glTF 2.0, binary, metres, y up. */
async function save(): Promise<void> {
  said.value = null;
  try {
    const { GLTFExporter } = await import('three/examples/jsm/exporters/GLTFExporter.js');
    const made = sceneOf(job.design, '', [], colours());
    const bytes = (await new GLTFExporter().parseAsync(made, { binary: true })) as ArrayBuffer;
    discard(made);
    download(new Blob([bytes], { type: 'model/gltf-binary' }), fileName(job.name, 'routes', 'glb'));
  } catch (error) {
    said.value = `Not made: ${error instanceof Error ? error.message : 'unknown reason'}`;
  }
}
</script>

<template>
  <div class="space" data-space>
    <p v-if="missing" class="panel-empty" role="alert">
      This browser draws nothing in three dimensions (WebGL is missing or off). Both views above and the table
      show the same.
    </p>
    <div v-show="!missing" ref="holder" class="holder">
      <canvas
        ref="canvas"
        tabindex="0"
        role="img"
        aria-label="The vehicle with its runs in three dimensions; arrow keys turn it, plus and minus come nearer"
        @keydown="keyed"
      />
    </div>
    <div v-if="!missing" class="line">
      <button type="button" class="btn btn-sm btn-light" @click="home">Whole vehicle</button>
      <button type="button" class="btn btn-sm btn-light" @click="save">Save as GLB</button>
      <span class="soft"
        >drag to turn, wheel to come nearer; the picked run is thicker, what is too near is marked</span
      >
      <span v-if="said" class="bad" role="alert">{{ said }}</span>
    </div>
  </div>
</template>

<style scoped>
.holder {
  height: 380px;
  background: var(--tv-recess);
}

canvas {
  display: block;
  width: 100%;
  height: 100%;
}

.line {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 0.8rem;
  align-items: center;
  margin-top: 0.3rem;
  font-size: 0.88rem;
}

.bad {
  color: var(--tv-stop);
}
</style>
