import type { VideoTiming } from '../../../standards/videoTiming';

/**
 * A device-tree overlay for a parallel output on the header with one fixed timing. Source: the kernel's bindings panel-dpi and
 * panel-timing. The labels are those of the boards that have such an
 * output in Linux 6.1; whether yours has them, dtc cannot tell.
 */
export function ladderOverlay(timing: VideoTiming, bitsPerColour: number): string[] {
	const pins = bitsPerColour > 6 ? 'dpi_gpio0' : 'dpi_18bit_gpio0';
	const h = { front: timing.hSyncStart - timing.widthPx, sync: timing.hSyncEnd - timing.hSyncStart };
	const v = { front: timing.vSyncStart - timing.heightPx, sync: timing.vSyncEnd - timing.vSyncStart };
	return `/dts-v1/;
/plugin/;

/ {
	fragment@0 {
		target = <&dpi>;
		__overlay__ {
			status = "okay";
			pinctrl-names = "default";
			pinctrl-0 = <&${pins}>;

			port {
				yphos_out: endpoint {
					remote-endpoint = <&yphos_in>;
				};
			};
		};
	};

	fragment@1 {
		target-path = "/";
		__overlay__ {
			yphos_panel: yphos-panel {
				compatible = "panel-dpi";

				port {
					yphos_in: endpoint {
						remote-endpoint = <&yphos_out>;
					};
				};

				panel-timing {
					clock-frequency = <${Math.round(timing.pixelClockKhz * 1000)}>;
					hactive = <${timing.widthPx}>;
					hfront-porch = <${h.front}>;
					hsync-len = <${h.sync}>;
					hback-porch = <${timing.hTotal - timing.hSyncEnd}>;
					vactive = <${timing.heightPx}>;
					vfront-porch = <${v.front}>;
					vsync-len = <${v.sync}>;
					vback-porch = <${timing.vTotal - timing.vSyncEnd}>;
					hsync-active = <${timing.hSyncPositive ? 1 : 0}>;
					vsync-active = <${timing.vSyncPositive ? 1 : 0}>;
				};
			};
		};
	};
};`.split('\n');
}
