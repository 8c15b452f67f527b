import type { Writes } from '../../manifest';
import { deliveryBench, deliveryBenchShape } from './bench';
import { deliveryFiles } from './files';
import type { DeliverySettings } from './settings';
import { deliverySteps } from './steps';

export default {
	files: deliveryFiles,
	steps: deliverySteps,
	bench: { shape: deliveryBenchShape, of: deliveryBench }
} satisfies Writes<DeliverySettings>;
