import { NOT_THE_SET } from '../../files/sandbox';
import { lines, rootPath, textFile } from '../../files/cardFile';
import { claimsOn, type Claim, type ClaimOn } from '../../claims';
import { execLine, unitText } from '../../formats/systemd/unit';
import type { CardFile, CardLine } from '../../link/file';

const UNITS = '/etc/systemd/system/';

/** Hardening that every program of a card set stands. Source: systemd.exec(5). */
const HARDENING = [
	'NoNewPrivileges=yes',
	'CapabilityBoundingSet=',
	'ProtectHome=yes',
	'ProtectKernelTunables=yes',
	'ProtectKernelModules=yes',
	'ProtectControlGroups=yes',
	'RestrictAddressFamilies=AF_UNIX AF_INET AF_INET6',
	'RestrictNamespaces=yes',
	'LockPersonality=yes',
	'SystemCallFilter=@system-service',
	'SystemCallErrorNumber=EPERM',
	NOT_THE_SET
];

/** A unit for each service that somebody wants to run, with the conditions that others claim for its start. */
export const serviceFiles = (claims: readonly Claim[]): CardFile[] =>
	claimsOn(claims, 'service').map((service) =>
		serviceFile(
			service,
			claimsOn(claims, 'start').filter(({ of }) => of === service.unit)
		)
	);

function serviceFile(service: ClaimOn<'service'>, conditions: readonly ClaimOn<'start'>[]): CardFile {
	const { setting, restart, condition, exec, home, boots, also } = service;
	const well = [restart.endsWell, restart.beginsAgainAfter].filter((code) => code !== undefined);
	const content: CardLine[] = [
		...lines(setting, '[Unit]'),
		...lines(service.described.setting, `Description=${unitText(service.described.text)}`),
		...conditions
			.filter((claim) => claim.after)
			.flatMap((claim) =>
				lines(claim.setting, `After=${claim.after!}`, ...(claim.wants ? [`Wants=${claim.after!}`] : []))
			),
		...lines(setting, ...(also?.unit ?? [])),
		...lines(restart.setting, 'StartLimitIntervalSec=0'),
		...lines(setting, '', '[Service]'),
		...(condition ? lines(condition.setting, `ExecCondition=${condition.path}`) : []),
		...conditions
			.filter((claim) => claim.before)
			.flatMap((claim) => lines(claim.setting, `ExecStartPre=${claim.mayFail ? '-' : ''}${execLine(claim.before!)}`)),
		...lines(exec.setting, `ExecStart=${execLine(exec.words)}`),
		...lines(
			restart.setting,
			`Restart=${restart.when}`,
			'RestartSec=2',
			...well.map((code) => `SuccessExitStatus=${code}`),
			...(restart.beginsAgainAfter === undefined ? [] : [`RestartForceExitStatus=${restart.beginsAgainAfter}`])
		),
		...lines(
			setting,
			also
				? '# It may use what is named here, and read.'
				: '# It may use what is named here and the network, and read; nothing else.',
			'DynamicUser=yes',
			`StateDirectory=${home}`,
			`Environment=HOME=/var/lib/${home}`,
			...(also?.service ?? [])
		),
		...conditions
			.filter((claim) => claim.group)
			.flatMap((claim) => lines(claim.setting, `SupplementaryGroups=${claim.group!}`)),
		...devicesAllowed(conditions),
		...lines(setting, ...(also?.guards ?? HARDENING)),
		...(boots ? lines(boots, '', '[Install]', 'WantedBy=multi-user.target') : [])
	];
	return textFile(rootPath(UNITS + service.unit), service.why, content);
}

/** Devices that somebody asks for, each once, and no others. */
function devicesAllowed(conditions: readonly ClaimOn<'start'>[]): CardLine[] {
	const asked = new Map(conditions.filter(({ device }) => device).map((claim) => [claim.device!, claim.setting]));
	const [first] = asked.values();
	return first === undefined
		? []
		: [
				...lines(first, 'DevicePolicy=closed'),
				...[...asked].flatMap(([device, setting]) => lines(setting, `DeviceAllow=${device} rw`))
			];
}
