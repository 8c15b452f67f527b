/**
 * Drawings of flat shapes for test cards and the like: one list of shapes, written as SVG and as PNG that agree pixel by pixel.
 * Source: SVG 2; PNG (ISO/IEC 15948). Start at `drawing.ts`.
 */
export { box, frame, word, wordHeight, wordWidth, type Drawing, type Shape } from './drawing';
export { paint, writePng } from './png';
export { writeSvg } from './svg';
