import type { Worktop } from '../worktop';
import HeaderSettings from './HeaderSettings.svelte';
import HeaderDrawing from './HeaderDrawing.svelte';

const worktop: Worktop = { settings: HeaderSettings, beside: HeaderDrawing, wide: true };
export default worktop;
