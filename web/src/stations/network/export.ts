import { download, fileName, makePdf, pdfFamily as family, savePdf } from '../../parts/pdf';

const kept = [
  'fill',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linejoin',
  'font-weight',
] as const;

/** The picture as it stands on the screen, with its looks in itself. */
export function standalone(svg: SVGSVGElement): SVGSVGElement {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const before = [svg, ...svg.querySelectorAll('*')];
  const after = [copy, ...copy.querySelectorAll('*')];
  before.forEach((element, i) => {
    const target = after[i]!;
    const style = getComputedStyle(element);
    const patterned = element.classList.contains('plate');
    for (const name of kept) {
      const value = style.getPropertyValue(name);
      if (value === '' || (name === 'stroke-dasharray' && value === 'none')) continue;
      // References to patterns come back with the page's address in front.
      const reference = /url\("?[^)]*(#[\w-]+)"?\)/.exec(value);
      target.setAttribute(name, patterned && reference ? `url(${reference[1]})` : value);
    }
    for (const name of [...target.getAttributeNames()])
      if (/^(class|style|data-|aria-|role|tabindex)/.test(name)) target.removeAttribute(name);
  });
  for (const hit of copy.querySelectorAll('rect[fill="rgba(0, 0, 0, 0)"], rect[fill="transparent"]'))
    hit.remove();
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('font-family', `${family}, 'Atkinson Hyperlegible Next', sans-serif`);
  return copy;
}

export function exportSvg(svg: SVGSVGElement, job: string): void {
  const text = new XMLSerializer().serializeToString(standalone(svg));
  download(new Blob([text], { type: 'image/svg+xml' }), fileName(job, 'one-line', 'svg'));
}

/** On one page, upright or across, whichever shows it larger. */
export async function exportPdf(
  svg: SVGSVGElement,
  job: string,
  title: string,
  size: 'A4' | 'A3',
): Promise<void> {
  const wide = svg.width.baseVal.value > svg.height.baseVal.value;
  const short = size === 'A4' ? 595 : 842;
  const long = size === 'A4' ? 842 : 1191;
  const margin = 28;
  const fit: [number, number] = [(wide ? long : short) - 2 * margin, (wide ? short : long) - 2 * margin - 44];
  const text = new XMLSerializer()
    .serializeToString(standalone(svg))
    .replace(/font-family="[^"]*"/, `font-family="${family}"`);
  const blob = await makePdf({
    pageSize: size,
    pageOrientation: wide ? 'landscape' : 'portrait',
    pageMargins: margin,
    info: { title },
    content: [
      { text: title, bold: true, fontSize: 11 },
      {
        text: 'Computed from the design. It does not replace proving dead, makers’ documents, local codes or licensed practice.',
        margin: [0, 2, 0, 8],
      },
      { svg: text, fit },
    ],
  });
  savePdf(blob, job, 'one-line');
}
