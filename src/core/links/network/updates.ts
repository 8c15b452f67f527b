import { endsWithin } from '../../files/sandbox';
import { lines, rootPath, textFile } from '../../files/cardFile';
import { readAptConf } from '../../formats/aptConf';
import type { Claim } from '../../claims';
import { tellerFor, type Machine } from '../../engines/machine';
import type { CardFile } from '../../link/file';
import type { NetworkSettings } from './settings';
import { NETWORK_WORDS } from './words';

/** The name of timer and service. */
export const UPDATES = 'yphos-updates';
const APT_GET = '/usr/bin/apt-get';
const UPGRADE = '/usr/bin/unattended-upgrade';
const APT_CONF = '/etc/apt/apt.conf.d/52yphos-updates';
const PERIODIC: readonly string[] = [
	'APT::Periodic::Update-Package-Lists',
	'APT::Periodic::Unattended-Upgrade',
	'Unattended-Upgrade::Automatic-Reboot'
];
const LIMIT_PATH = '/opt/yphos/updates.conf';

/** No more of the path than this, so that what plays beside it goes on. A night's updates are some tens of megabytes. */
const LIMIT_KBYTES_PER_SEC = 250;

/** Installing a usual night's. Typical. */
const INSTALL_MS = 120_000;

/** Whether a timer fetches updates; never without a network. */
export const updatesNightly = (network: NetworkSettings): boolean => network.way !== 'none' && network.updates.nightly;

/** What updates every night take: packages, a timer, minutes, a rate. */
export function updateClaims(settings: NetworkSettings): Claim[] {
	if (!updatesNightly(settings)) return [];
	const claim = { from: 'network', what: 'updates', setting: 'network.updates' } as const;
	return [
		{ ...claim, on: 'package', name: 'unattended-upgrades' },
		{ ...claim, on: 'unit', name: `${UPDATES}.timer` },
		{
			...claim,
			on: 'path',
			bitsPerSec: LIMIT_KBYTES_PER_SEC * 8000,
			hour: Number(settings.updates.at.slice(0, 2))
		},
		{
			...claim,
			on: 'check',
			label: 'updates come every night',
			command: `systemctl is-enabled ${UPDATES}.timer`
		}
	];
}

/** A timer of our own, at a time that was chosen; the package’s own, which comes at any hour, is switched off. Source: apt.conf(5). */
export function updateFiles(settings: NetworkSettings): CardFile[] {
	if (!updatesNightly(settings)) return [];
	const file = (path: string, why: string, ...texts: string[]): CardFile =>
		textFile(rootPath(path), why, lines('network.updates', ...texts));
	return [
		file(
			`/etc/systemd/system/${UPDATES}.timer`,
			'When security updates come.',
			'[Unit]',
			'Description=Security updates every night',
			'',
			'[Timer]',
			`OnCalendar=*-*-* ${settings.updates.at}:00`,
			'Persistent=true',
			'',
			'[Install]',
			'WantedBy=timers.target'
		),
		file(
			`/etc/systemd/system/${UPDATES}.service`,
			'Fetches and installs security updates, slowly.',
			'[Unit]',
			'Description=Fetches and installs security updates',
			'Wants=network-online.target',
			'After=network-online.target',
			'',
			'[Service]',
			'Type=oneshot',
			endsWithin(6 * 3600),
			`Environment=APT_CONFIG=${LIMIT_PATH}`,
			`ExecStart=${APT_GET} update`,
			`ExecStart=${UPGRADE}`,
			'Nice=19',
			'IOSchedulingClass=idle'
		),
		file(
			LIMIT_PATH,
			'How much of the path updates may take, in kB/s.',
			`Acquire::http::Dl-Limit "${LIMIT_KBYTES_PER_SEC}";`,
			`Acquire::https::Dl-Limit "${LIMIT_KBYTES_PER_SEC}";`
		),
		file(
			APT_CONF,
			'Leaves the hour of updates to the timer of this card set.',
			'APT::Periodic::Update-Package-Lists "0";',
			'APT::Periodic::Unattended-Upgrade "0";',
			'Unattended-Upgrade::Automatic-Reboot "false";'
		)
	];
}

/** The two programs that the service runs; the first is apt-get, which the machine itself knows. */
export function rehearseUpdates(machine: Machine): void {
	const tell = tellerFor(machine, 'network', NETWORK_WORDS);
	machine.on('userspace', () => {
		if (machine.disk.packages.get('unattended-upgrades') !== 'installed') return;
		const settings = readAptConf(machine.disk.get(APT_CONF)?.text ?? '');
		for (const key of settings.keys()) if (!PERIODIC.includes(key)) machine.unknown(`${key} in ${APT_CONF}`);
		// Once it is installed the package's own timer does the same, unless it is told not to.
		if (PERIODIC.slice(0, 2).some((key) => settings.get(key) !== '0')) tell.event('updates-any-hour', 'bad');
	});
	machine.programs.set(UPGRADE, (process) => {
		if (!machine.online) {
			tell.event('updates-none', 'bad');
			return process.after(200, () => process.exit(1));
		}
		process.after(INSTALL_MS, () => {
			tell.event('updates-in', 'info');
			tell.mark('reach', 'updates', '');
			process.exit(0);
		});
	});
}
