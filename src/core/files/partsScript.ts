/** The script that plays of an entry what stands behind its place. */
export const PARTS_PATH = '/opt/yphos/player/parts.lua';

/**
 * For a single file the player takes where it begins and ends; softer through what it does with ReplayGain, since the volume may be
 * turned by hand meanwhile. Source: mpv(1), LUA SCRIPTING: on_load, file-local-options; --replaygain-preamp where a file has its gain,
 * --replaygain-fallback where not.
 */
export const PARTS = `-- parts.lua: plays of an entry what stands behind its place, such as #t=12,40.5&gain=-6.
mp.add_hook("on_load", 40, function()
	local name = mp.get_property("stream-open-filename", "")
	local head, gain = name:match("^(.*)&gain=(%-%d+%.?%d*)$")
	head = head or name
	local place, from, till = head:match("^(.+)#t=(%d+%.?%d*),(%d+%.?%d*)$")
	if not place then place, from = head:match("^(.+)#t=(%d+%.?%d*)$") end
	if not place then return end
	mp.set_property("stream-open-filename", place)
	mp.set_property("file-local-options/start", from)
	if till then
		mp.set_property("file-local-options/end", till)
		mp.set_property("file-local-options/image-display-duration", till - from)
	end
	if gain then
		mp.set_property("file-local-options/replaygain-preamp", gain)
		mp.set_property("file-local-options/replaygain-fallback", gain)
	end
end)`.split('\n');
