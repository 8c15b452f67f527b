import type { Worktop } from '../worktop';
import PowerSettings from './PowerSettings.svelte';
import PowerDrawing from './PowerDrawing.svelte';

const worktop: Worktop = { settings: PowerSettings, drawing: PowerDrawing };
export default worktop;
