/**
 * File systems that the kernel of Debian 12 mounts by itself, on amd64 and arm64 alike, with the setting that says so. NTFS is not
 * among them: `# CONFIG_NTFS3_FS is not set`. Source: config.amd64_none_amd64 and config.arm64_none_arm64 of the package
 * linux-config-6.1, 6.1.192-3.
 */
export const KERNEL_FILE_SYSTEMS = {
	ext4: 'CONFIG_EXT4_FS=m',
	vfat: 'CONFIG_VFAT_FS=m',
	exfat: 'CONFIG_EXFAT_FS=m',
	cifs: 'CONFIG_CIFS=m',
	nfs: 'CONFIG_NFS_FS=m'
} as const satisfies Readonly<Record<string, `CONFIG_${string}=${'m' | 'y'}`>>;
