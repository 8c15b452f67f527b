#!/bin/sh
# fan.sh switched|pwm GPIO ON OFF: temperatures in whole degrees Celsius.
way=$1 gpio=$2 on=$3 off=$4
zone=/sys/class/thermal/thermal_zone0/temp
chip() { echo $(($(cat "$zone") / 1000)); }

switched() {
	for bank in /sys/class/gpio/gpiochip*; do
		[ "$(cat "$bank/ngpio")" -ge 28 ] || continue
		# The header's is the pin controller; a chip for power or an expander may come before it.
		case $(cat "$bank/label") in
		pinctrl*) base=$(cat "$bank/base") && break ;;
		*) base=${base:-$(cat "$bank/base")} ;;
		esac
	done
	line=$((base + gpio))
	[ -d "/sys/class/gpio/gpio$line" ] || echo "$line" >/sys/class/gpio/export
	echo out >"/sys/class/gpio/gpio$line/direction"
	while :; do
		now=$(chip)
		if [ "$now" -ge "$on" ]; then
			echo 1 >"/sys/class/gpio/gpio$line/value"
		elif [ "$now" -le "$off" ]; then
			echo 0 >"/sys/class/gpio/gpio$line/value"
		fi
		sleep 5
	done
}

pwm() { # 25 kHz, as fans with a speed wire expect
	case $gpio in 12 | 18) channel=0 ;; *) channel=1 ;; esac
	bank=/sys/class/pwm/pwmchip0
	[ -d "$bank/pwm$channel" ] || echo "$channel" >"$bank/export"
	echo 40000 >"$bank/pwm$channel/period"
	echo 1 >"$bank/pwm$channel/enable"
	while :; do
		part=$((($(chip) - off) * 100 / (on - off)))
		[ "$part" -lt 0 ] && part=0
		[ "$part" -gt 100 ] && part=100
		echo $((400 * part)) >"$bank/pwm$channel/duty_cycle"
		sleep 5
	done
}

case $way in switched) switched ;; pwm) pwm ;; *) exit 2 ;; esac
