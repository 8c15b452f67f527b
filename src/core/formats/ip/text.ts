import { z } from 'zod';
import { sentence, type Result } from '../../basics/result';
import { readAddress, readCidr } from './cidr';

/** A text that a reader must take; what the reader says is what the person is told. */
export const readable = (read: (text: string) => Result<unknown>) =>
	z.string().superRefine((text, issues) => {
		const result = read(text);
		if (!result.ok) issues.addIssue({ code: 'custom', message: sentence(result.faults) });
	});

/** A string that reads as an address, IPv4 or IPv6. */
export const addressText = readable(readAddress);
/** A string that reads as a network in CIDR notation. */
export const cidrText = readable(readCidr);
