import type { Worktop } from '../worktop';
import CardSettings from './CardSettings.svelte';
import CardDrawing from './CardDrawing.svelte';
import KeepWhere from './KeepWhere.svelte';

const worktop: Worktop = { settings: CardSettings, drawing: CardDrawing, below: KeepWhere };
export default worktop;
