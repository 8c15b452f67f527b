import type { Worktop } from '../worktop';
import NetworkSettings from './NetworkSettings.svelte';
import NetworkDrawing from './NetworkDrawing.svelte';

const worktop: Worktop = { settings: NetworkSettings, drawing: NetworkDrawing };
export default worktop;
