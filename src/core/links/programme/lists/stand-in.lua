-- stand-in.lua: what plays while a stream is gone, and back to the stream when it is there again.
local given = { plays = "", look = 300 }
require("mp.options").read_options(given, "stand-in")
local log = require("mp.msg")
local wanted, address, playing, looking
local function streams(path)
	return path ~= nil and path:find("^%a[%w+.-]*://") ~= nil
end
local function gone(path, position)
	wanted, address = position, path
	log.warn("the stream is gone: " .. path)
end
mp.add_hook("on_load_fail", 50, function()
	local path = mp.get_property("path")
	if not streams(path) then return end
	if not wanted then gone(path, mp.get_property_number("playlist-pos")) end
	if given.plays == "" then return end
	mp.set_property("file-local-options/loop-file", "inf")
	mp.set_property("stream-open-filename", given.plays)
end)
mp.register_event("file-loaded", function()
	local path = mp.get_property("path")
	playing = streams(path) and mp.get_property("stream-open-filename") ~= given.plays and path or nil
	if playing and playing == address then
		wanted, address = nil, nil
		log.warn("the stream is there again: " .. path)
	end
end)
mp.register_event("end-file", function(event)
	if not playing or (event.reason ~= "eof" and event.reason ~= "error") then return end
	for n, entry in ipairs(mp.get_property_native("playlist")) do
		if entry.filename == playing and not wanted then gone(playing, n - 1) end
	end
	playing = nil
	if given.plays ~= "" and wanted then mp.commandv("playlist-play-index", wanted) end
end)
mp.add_periodic_timer(given.look, function()
	if not wanted or looking then return end
	looking = true
	mp.command_native_async({
		name = "subprocess",
		playback_only = false,
		args = { "mpv", "--no-config", "--really-quiet", "--vo=null", "--ao=null", "--ytdl=no", "--network-timeout=10", "--length=1", address },
	}, function(done, result)
		looking = false
		if done and result.status == 0 and wanted then mp.commandv("playlist-play-index", wanted) end
	end)
end)
