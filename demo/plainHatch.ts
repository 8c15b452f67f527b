import { demoWorkshop } from './workshop';

/** The demo with its ticket hatch as it would be without a browser: three pictures, shown by the plain player. For tests of that way. */
export const plainHatchWorkshop: typeof demoWorkshop = {
	...demoWorkshop,
	endpoints: demoWorkshop.endpoints.map((endpoint) =>
		endpoint.id === 'ticket-hatch'
			? {
					...endpoint,
					plan: {
						...endpoint.plan,
						notices: { ...endpoint.plan.notices, used: false },
						programme: {
							...endpoint.plan.programme,
							lists: [
								{ id: 'ferry', title: 'Ferry and steps', items: ['s1', 's3', 's1'], wishes: [], valid: [] },
								{ id: 'hours', title: 'Opening hours', items: ['s2'], wishes: [], valid: [] }
							]
						}
					}
				}
			: endpoint
	)
};
