import type { Worktop } from '../worktop';
import HeatSettings from './HeatSettings.svelte';
import HeatDrawing from './HeatDrawing.svelte';

const worktop: Worktop = { settings: HeatSettings, drawing: HeatDrawing };
export default worktop;
