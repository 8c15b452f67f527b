import type { Worktop } from '../worktop';
import SoundSettings from './SoundSettings.svelte';
import SoundDrawing from './SoundDrawing.svelte';
import SoundMeetings from './SoundMeetings.svelte';
import SoundDevice from './SoundDevice.svelte';

const worktop: Worktop = { settings: SoundSettings, drawing: SoundDrawing, beside: SoundMeetings, below: SoundDevice };
export default worktop;
