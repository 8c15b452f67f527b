/**
 * What the units of a card set may do on the endpoint: as little as their work needs. `systemd-analyze security` of systemd 252 gives
 * a unit with all of `SANDBOX` 1.9 with the network and less without. Source: systemd.exec(5), "Sandboxing".
 */

/** Where the card set lies with all its passwords, wherever an image shows its first partition. */
export const NOT_THE_SET = 'InaccessiblePaths=-/boot -/efi';

/** For programs that compute, write to a folder of their own and, when they fetch, ask the network. */
export const SANDBOX = [
	'NoNewPrivileges=yes',
	'CapabilityBoundingSet=',
	'ProtectSystem=strict',
	'ProtectHome=yes',
	'ProtectClock=yes',
	'ProtectHostname=yes',
	'ProtectKernelLogs=yes',
	'ProtectKernelModules=yes',
	'ProtectKernelTunables=yes',
	'ProtectControlGroups=yes',
	'ProtectProc=invisible',
	'ProcSubset=pid',
	'PrivateDevices=yes',
	'PrivateTmp=yes',
	'RestrictNamespaces=yes',
	'RestrictRealtime=yes',
	'RestrictSUIDSGID=yes',
	'LockPersonality=yes',
	'MemoryDenyWriteExecute=yes',
	'SystemCallArchitectures=native',
	'SystemCallFilter=@system-service',
	'SystemCallFilter=~@privileged @resources',
	'SystemCallErrorNumber=EPERM',
	'UMask=0022',
	NOT_THE_SET
] as const;

/** It asks nobody. */
export const NO_NETWORK = ['PrivateNetwork=yes', 'RestrictAddressFamilies=AF_UNIX', 'IPAddressDeny=any'] as const;

/**
 * It fetches from the network. Which addresses it may ask is looked at by its script, name by name: a rule of its unit would shut it
 * off from the name server, which at home is the router. Only what is never one is closed here. Source: systemd.resource-control(5).
 */
export const FETCHES = [
	'RestrictAddressFamilies=AF_UNIX AF_INET AF_INET6 AF_NETLINK',
	'IPAddressDeny=169.254.0.0/16 multicast'
] as const;

/** A unit that does something and ends has no limit of its own. Source: systemd.service(5), TimeoutStartSec=. */
export const endsWithin = (seconds: number): string => `TimeoutStartSec=${seconds}`;
