import { defineStore } from 'pinia';
import { ref } from 'vue';
import { useJob, type News } from './job';

const firstRetryMs = 1000;
const slowestRetryMs = 15_000;

/** The line over which other people's changes, new entries and progress arrive while a job is open. */
export const useLive = defineStore('live', () => {
  const job = useJob();
  const connected = ref(false);
  /** How far long pieces of work have come, by task. */
  const progress = ref<Record<string, number>>({});
  let socket: WebSocket | null = null;
  let watched = '';
  let retryMs = firstRetryMs;
  let timer: ReturnType<typeof setTimeout> | undefined;

  function watch(id: string): void {
    watched = id;
    progress.value = {};
    if (socket?.readyState === WebSocket.OPEN) begin(socket);
    else connect();
  }

  function begin(line: WebSocket): void {
    // The answer says how far the job has come: between reading it and this moment something may have happened.
    line.send(JSON.stringify({ watch: watched }));
  }

  function connect(): void {
    clearTimeout(timer);
    socket?.close();
    const line = new WebSocket(
      `${location.protocol === 'https:' ? 'wss' : 'ws'}://${location.host}/api/live`,
    );
    socket = line;
    line.onopen = () => {
      connected.value = true;
      retryMs = firstRetryMs;
      begin(line);
    };
    line.onmessage = ({ data }) => {
      const news = JSON.parse(String(data)) as News;
      if (news.kind === 'progress') progress.value = { ...progress.value, [news.task]: news.fraction };
      else void job.hear(news);
    };
    line.onclose = () => {
      if (socket !== line) return;
      connected.value = false;
      if (watched === '') return;
      timer = setTimeout(connect, retryMs);
      retryMs = Math.min(retryMs * 2, slowestRetryMs);
    };
  }

  function leave(): void {
    watched = '';
    clearTimeout(timer);
    socket?.close();
    socket = null;
    connected.value = false;
  }

  return { connected, progress, watch, leave };
});
