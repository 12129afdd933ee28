<script setup lang="ts">
import { ref } from 'vue';
import { api } from '../../../api/client';
import { useJob } from '../../../stores/job';

/** Labels to print and stick on: name, job, and a code that leads back to the module’s page. */
const props = defineProps<{ rows: { id: string; name: string }[] }>();
const job = useJob();
const busy = ref(false);
const trouble = ref<string | null>(null);

/** A sheet of labels as PDF: three across, nine down on A4. */
async function print(): Promise<void> {
  busy.value = true;
  trouble.value = null;
  try {
    const [{ makePdf, savePdf }, { default: QrCode }, anchor] = await Promise.all([
      import('../../../parts/pdf'),
      import('qrcode'),
      api.get<{ text: string; n: number; key: string }>(`/jobs/${job.id}/anchor`),
    ]);
    const cells = await Promise.all(
      props.rows.map(async ({ id, name }) => {
        const address = `${location.origin}/jobs/${job.id}/pack?panel=intake&module=${encodeURIComponent(id)}`;
        const code = await QrCode.toString(address, { type: 'svg', margin: 0 });
        return {
          columns: [
            { svg: code, width: 62 },
            {
              stack: [
                { text: name, bold: true, fontSize: 14 },
                { text: job.name, fontSize: 8 },
                { text: job.design.parts[job.design.modules[id]?.part ?? '']?.number ?? '', fontSize: 8 },
                { text: 'HV: see the record before use', fontSize: 7 },
              ],
            },
          ],
          columnGap: 8,
          margin: [4, 6, 4, 6] as [number, number, number, number],
        };
      }),
    );
    const body = Array.from({ length: Math.ceil(cells.length / 3) }, (_, i) =>
      Array.from({ length: 3 }, (_empty, j) => cells[i * 3 + j] ?? { text: '' }),
    );
    const blob = await makePdf({
      pageSize: 'A4',
      pageMargins: 24,
      info: { title: `${job.name}: labels of modules` },
      content: [
        { table: { widths: ['*', '*', '*'], body, dontBreakRows: true } },
        {
          unbreakable: true,
          columns: [
            { svg: await QrCode.toString(anchor.text, { type: 'svg', margin: 0 }), width: 90 },
            {
              stack: [
                {
                  text: `Where the record of “${job.name}” stood: link ${anchor.n}`,
                  bold: true,
                  fontSize: 9,
                },
                {
                  text: 'Keep this part of the sheet. Book and “npm run verify -- --paper” hold it against the chain: a record that was rewritten since shows.',
                  fontSize: 8,
                },
                { text: `Key of the shop: ${anchor.key}`, fontSize: 8 },
                { text: anchor.text, fontSize: 6 },
              ],
              width: '*',
            },
          ],
          columnGap: 10,
          margin: [4, 14, 4, 0] as [number, number, number, number],
        },
      ],
    });
    savePdf(blob, job.name, 'labels');
  } catch (error) {
    trouble.value = `Not made: ${error instanceof Error ? error.message : 'unknown reason'}`;
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <span>
    <button type="button" class="btn btn-quiet btn-sm" :disabled="busy || rows.length === 0" @click="print">
      Labels with QR, PDF
    </button>
    <span v-if="trouble" role="alert" class="trouble">{{ trouble }}</span>
  </span>
</template>

<style scoped>
.trouble {
  color: var(--tv-stop);
  margin-left: 0.5rem;
}
</style>
