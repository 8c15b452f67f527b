import type { Fields } from '../../manifest';
import type { PictureSettings } from './settings';

export default {
	edid: { label: 'What the screen says of itself (EDID)', words: 'edid modes read' },
	ranges: { label: 'Rates on the monitor’s label', words: 'vga analogue khz old monitor' },
	connector: { label: 'Connector', words: 'hdmi port output' },
	turn: { label: 'Turned', words: 'rotate rotation portrait upside down' },
	mode: { label: 'Mode', words: 'resolution refresh rate hz 1080p' },
	wholePicture: {
		label: 'A setting of the set for the whole picture',
		words: 'whole-picture overscan just scan full pixel'
	},
	edges: { label: 'Edges that the set cuts off', words: 'overscan margins cut' },
	edgesBy: { label: 'Edges kept free by', words: 'overscan margins kernel player' },
	whenOff: { label: 'When the screen is off at the start', words: 'no signal boot hotplug' },
	writesEdid: { label: 'Bring an EDID of our own', words: 'edid firmware override' },
	hidesBoot: { label: 'Nothing of the boot is seen', words: 'splash console text' },
	blankMin: { label: 'Console goes dark after', words: 'screen blank saver' },
	hours: { label: 'Screen hours', words: 'on off timer night standby' },
	darkWhileResting: { label: 'Screen off while nothing is on', words: 'programme rest black dark power' },
	offBy: { label: 'Screen switched by', words: 'cec standby signal socket mains relay' },
	afterCut: {
		label: 'When its mains come back, the set',
		words: 'power cut after mains returns comes on standby wake'
	},
	shifts: { label: 'Stills move a little each minute', words: 'burn-in retention orbit' },
	distanceM: { label: 'Viewing distance', words: 'read legible text size' },
	angleDeg: { label: 'From the side', words: 'viewing angle oblique' },
	light: { label: 'Light where it is seen', words: 'contrast bright foyer' },
	eyes: { label: 'Eyes that read it', words: 'legible weak' },
	stillSec: { label: 'A still stands', words: 'slideshow seconds photographs' },
	draws: { label: 'Drawn by', words: 'gpu graphics processor' },
	levels: { label: 'Levels', words: 'black white range full limited' },
	controls: {
		label: 'Keys, remotes and phone',
		words: 'remote keyboard gamepad infra-red phone page shut down power off'
	},
	phonePassword: { label: 'The phone’s page asks for a password', words: 'pin lock guests remote' }
} satisfies Fields<PictureSettings>;
