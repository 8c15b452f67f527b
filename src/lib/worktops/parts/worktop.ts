import type { Worktop } from '../worktop';
import PartsSettings from './PartsSettings.svelte';
import PartsDrawing from './PartsDrawing.svelte';
import PartsFound from './PartsFound.svelte';

const worktop: Worktop = { settings: PartsSettings, drawing: PartsDrawing, below: PartsFound };
export default worktop;
