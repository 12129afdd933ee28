import { ref } from 'vue';

export interface Picture {
  url: string;
  name: string;
  width: number;
  height: number;
}

const largestBytes = 20 * 1024 * 1024;

/** A picture chosen or pasted; it stays in the browser. */
export function usePicture(shown: (picture: Picture) => void) {
  const picture = ref<Picture | null>(null);
  const problem = ref<string | null>(null);

  async function load(file: File): Promise<void> {
    problem.value = null;
    if (!/^image\/(png|jpeg|webp|gif)$/.test(file.type)) {
      problem.value = `${file.name} is no picture that can be shown: PNG, JPEG, WebP or GIF.`;
      return;
    }
    if (file.size > largestBytes) {
      problem.value = `${file.name} is larger than 20 MB.`;
      return;
    }
    const url = await new Promise<string>((resolve) => {
      const reader = new FileReader();
      reader.onload = () => resolve(String(reader.result));
      reader.readAsDataURL(file);
    });
    const image = new Image();
    image.onload = () => {
      picture.value = { url, name: file.name, width: image.naturalWidth, height: image.naturalHeight };
      shown(picture.value);
    };
    image.onerror = () => (problem.value = `${file.name} cannot be shown as a picture.`);
    image.src = url;
  }
  function choose(event: Event): void {
    const [file] = (event.target as HTMLInputElement).files ?? [];
    if (file !== undefined) void load(file);
  }
  function paste(event: ClipboardEvent): void {
    const file = [...(event.clipboardData?.files ?? [])].find(({ type }) => type.startsWith('image/'));
    if (file !== undefined) void load(file);
  }
  return { picture, problem, choose, paste };
}
