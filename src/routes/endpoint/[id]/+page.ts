import { redirect } from '@sveltejs/kit';

export const load = ({ params }: { params: { id: string } }): never =>
	redirect(307, `/endpoint/${params.id}/plan/brief`);
