import type { Worktop } from '../worktop';
import SourcesSettings from './SourcesSettings.svelte';
import SourcesDrawing from './SourcesDrawing.svelte';

const worktop: Worktop = { settings: SourcesSettings, drawing: SourcesDrawing, list: true };
export default worktop;
