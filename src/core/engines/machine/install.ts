import { readUnit } from '../../formats/systemd/unit';

/** Folders of links that [Install] asks for: "multi-user.target.wants". Source: systemd.unit(5), [INSTALL] SECTION OPTIONS. */
export const parseInstall = (text: string): string[] =>
	readUnit(text)
		.filter(({ section }) => section === 'Install')
		.flatMap(({ key, value }) => {
			const folder = key === 'WantedBy' ? 'wants' : key === 'RequiredBy' ? 'requires' : null;
			return folder
				? value
						.split(/\s+/)
						.filter(Boolean)
						.map((target) => `${target}.${folder}`)
				: [];
		});
