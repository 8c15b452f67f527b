import type { Change } from '../../changes';
import type { SettingPath } from '../../link/setting';
import type { NetworkSettings } from './settings';

declare module '../../facts' {
	interface Facts {
		readonly way: NetworkSettings['way'];
		/** Of its Wi-Fi; null: it does not join by Wi-Fi. */
		readonly bandGhz: NetworkSettings['radio']['bandGhz'] | null;
		/** From the services' beginning to being on the network, ms. */
		readonly joinMs: number;
		readonly hostName: string;
		/** Who looks after it; "": nobody can log in. */
		readonly keeper: string;
		/** Its own address, when it has one that stays; else "". */
		readonly address: string;
		/** How the first start is set up. */
		readonly school: NetworkSettings['school'];
	}
}
declare module '../../changes' {
	interface Changes {
		useWired(): Change;
		useUpperBand(): Change;
		setUpBy(school: NetworkSettings['school']): Change;
	}
}
declare module '../../claims' {
	interface ClaimTypes {
		/** Bits a second over the network while it runs; `writes`: a recording that goes to a share; `hour`: in this one only. */
		path: { readonly bitsPerSec: number; readonly writes?: true; readonly hour?: number };
		/** What the endpoint fetches from an address of the web, by `ask.sh`. */
		fetch: { readonly address: string; readonly setting: SettingPath };
		/** A port at which the endpoint answers those who may knock. */
		listen: {
			readonly port: number;
			readonly protocol: 'tcp' | 'udp';
			/** So often one source may knock there; absent: as often as it likes. */
			readonly perMinute?: number;
			readonly setting: SettingPath;
		};
	}
}

declare module '../../link/step' {
	interface Conditions {
		found: true;
		'logged in': true;
	}
}
declare module '../../secrets' {
	interface Secrets {
		/** The keeper's password as it stands in /etc/shadow. */
		readonly userPasswordCrypt?: string;
		/** 64 hexadecimal digits, derived from the pass phrase. */
		readonly radioPskHex?: string;
	}
}
