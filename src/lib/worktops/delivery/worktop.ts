import type { Worktop } from '../worktop';
import DeliverySettings from './DeliverySettings.svelte';
import DeliveryDrawing from './DeliveryDrawing.svelte';
import PackContent from './PackContent.svelte';

const worktop: Worktop = { settings: DeliverySettings, drawing: DeliveryDrawing, below: PackContent };
export default worktop;
