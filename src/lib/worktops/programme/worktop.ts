import type { Worktop } from '../worktop';
import ProgrammeSettings from './ProgrammeSettings.svelte';
import ProgrammeDrawing from './ProgrammeDrawing.svelte';

const worktop: Worktop = { settings: ProgrammeSettings, drawing: ProgrammeDrawing };
export default worktop;
