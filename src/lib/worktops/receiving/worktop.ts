import type { Worktop } from '../worktop';
import ReceivingSettings from './ReceivingSettings.svelte';
import ReceivingDrawing from './ReceivingDrawing.svelte';
import SendCommands from './SendCommands.svelte';

const worktop: Worktop = { settings: ReceivingSettings, drawing: ReceivingDrawing, below: SendCommands };
export default worktop;
