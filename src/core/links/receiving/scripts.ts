import pairScript from './pair.sh?raw';
import giveWayScript from './give-way.sh?raw';
import { scriptLines } from '../../files/script';

/**
 * With NoInputNoOutput the kernel accepts a phone that asks by itself, and the agent is only asked which services; it says yes to what
 * is paired. Sources: Linux 6.1, net/bluetooth/hci_event.c, hci_user_confirm_request_evt(); bluez-tools, lib/agent-helper.c; bluetoothctl(1).
 */
export const PAIR = scriptLines(pairScript);

/** A program that plays holds a sound device open, by whatever way it came to it. Sources: proc(5), /proc/PID/fd; systemd's control groups. */
export const GIVE_WAY = scriptLines(giveWayScript);
