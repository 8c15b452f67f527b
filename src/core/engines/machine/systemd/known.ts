/**
 * Settings of units that are simulated, or known not to decide success here (hardening as it stood the test of a real start,
 * words for people). Whatever else a unit says is told as not rehearsed. Source: systemd.unit(5), systemd.service(5),
 * systemd.exec(5), systemd.timer(5), systemd.mount(5), systemd.path(5), systemd.socket(5).
 */
export const KNOWN: Readonly<Record<string, readonly string[]>> = {
	Unit: [
		...['Description', 'Documentation', 'After', 'Before', 'Wants', 'Requires', 'BindsTo'],
		...['StartLimitIntervalSec', 'StartLimitBurst', 'ConditionPathExists', 'ConditionPathExistsGlob'],
		...['CollectMode', 'ConditionPathIsDirectory', 'ConditionFileNotEmpty', 'ConditionFileIsExecutable'],
		...['DefaultDependencies', 'OnFailure', 'Requisite', 'Conflicts']
	],
	Service: [
		...['Type', 'ExecCondition', 'ExecStartPre', 'ExecStart', 'ExecStartPost', 'ExecStop', 'ExecStopPost'],
		...['Restart', 'RestartSec', 'Environment', 'EnvironmentFile', 'RemainAfterExit'],
		...['DynamicUser', 'User', 'Group', 'SupplementaryGroups', 'DevicePolicy', 'DeviceAllow'],
		...['StateDirectory', 'RuntimeDirectory', 'WorkingDirectory', 'NoNewPrivileges', 'CapabilityBoundingSet'],
		...['ProtectHome', 'ProtectKernelTunables', 'ProtectKernelModules', 'ProtectControlGroups'],
		...['RestrictAddressFamilies', 'RestrictNamespaces', 'LockPersonality', 'SystemCallFilter'],
		...[
			'SystemCallErrorNumber',
			'MemoryMax',
			'TasksMax',
			'RuntimeMaxSec',
			'PrivateNetwork',
			'PrivateDevices',
			'Nice',
			'IOSchedulingClass',
			'ProtectSystem',
			'ReadWritePaths',
			'BusName',
			'PrivateTmp',
			'IPAddressDeny',
			'IPAddressAllow',
			'RuntimeDirectoryMode',
			'SuccessExitStatus',
			'RestartForceExitStatus',
			'TimeoutStartSec',
			'LoadCredential',
			'RuntimeDirectoryPreserve',
			'StateDirectoryMode',
			'InaccessiblePaths',
			'ProtectClock',
			'ProtectHostname',
			'ProtectKernelLogs',
			'ProtectProc',
			'ProcSubset',
			'RestrictRealtime',
			'RestrictSUIDSGID',
			'MemoryDenyWriteExecute',
			'SystemCallArchitectures',
			'UMask'
		]
	],
	Timer: [
		...['OnCalendar', 'OnBootSec', 'OnUnitActiveSec', 'AccuracySec', 'Unit', 'Persistent'],
		...['OnClockChange', 'OnTimezoneChange']
	],
	Mount: ['What', 'Where', 'Type', 'Options', 'TimeoutSec'],
	Automount: ['Where', 'TimeoutIdleSec'],
	Path: [
		'DirectoryNotEmpty',
		'MakeDirectory',
		'DirectoryMode',
		'PathExists',
		'PathExistsGlob',
		'PathChanged',
		'PathModified',
		'Unit'
	],
	Socket: [
		'ListenStream',
		'ListenDatagram',
		'ListenFIFO',
		'Accept',
		'Service',
		'MaxConnections',
		'MaxConnectionsPerSource',
		'TriggerLimitIntervalSec',
		'PollLimitIntervalSec',
		'IPAddressAllow',
		'IPAddressDeny'
	],
	Install: ['WantedBy', 'RequiredBy', 'Also', 'Alias']
};

/** Kinds of units that are started here. */
export const KINDS = ['service', 'timer', 'target', 'mount', 'automount', 'path', 'socket'] as const;
type UnitKind = (typeof KINDS)[number];

/** A unit's kind by the end of its name; null for one that does not exist. */
export const kindOf = (name: string): UnitKind | null =>
	KINDS.find((kind) => kind === name.slice(name.lastIndexOf('.') + 1)) ?? null;

/** Reached as part of every start, without our doing. Source: bootup(7). */
export const ALWAYS_REACHED = [
	...['local-fs.target', 'sysinit.target', 'basic.target', 'time-set.target', 'paths.target', 'sockets.target'],
	...['systemd-user-sessions.service', 'network.target', 'alsa-restore.service', 'timers.target'],
	...['multi-user.target', 'graphical.target', 'remote-fs-pre.target', 'network-pre.target']
];
/** What a start comes to by and by, where it has what that needs. Source: systemd.special(7). */
export const REACHED_AT_START: readonly string[] = [
	...ALWAYS_REACHED,
	...['remote-fs.target', 'network-online.target', 'bluetooth.target', 'sound.target']
];
