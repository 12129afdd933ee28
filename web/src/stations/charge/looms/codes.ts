import type { Design } from '@torvek/core/document';

/** The code of colours as it is offered: what a purpose is called, and its colour. */
export const codesOf = (colours: Design['colours']) =>
  Object.entries(colours ?? {}).map(([value, { tag, colour }]) => ({
    value,
    text: colour === undefined ? tag : `${tag}: ${colour}`,
  }));
