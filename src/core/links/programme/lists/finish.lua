-- finish.lua: when something else is on by the rules, what plays is played to its end; then the player ends, and is begun anew.
local given = { state = "/var/lib/yphos-on-air" }
require("mp.options").read_options(given, "finish")
local log = require("mp.msg")
local function read(name)
	local file = io.open(given.state .. "/" .. name)
	local text = file and file:read(1000000) or ""
	if file then file:close() end
	return text
end
local function now()
	return table.concat({ read("now.m3u8"), read("days.m3u8"), read("volume.conf") }, "\0")
end
local begun = now()
local told = false
local function leave()
	log.warn("something else is on")
	mp.commandv("quit", "75")
end
-- A stream has no end, nor has a picture that stands for ever.
local function ends()
	local path = mp.get_property("path") or ""
	if path:find("^%a[%w+.-]*://") then return false end
	if mp.get_property_native("current-tracks/video/image") and not mp.get_property_native("current-tracks/audio") then
		return mp.get_property("image-display-duration") ~= "inf"
	end
	return mp.get_property_number("duration") ~= nil
end
mp.add_hook("on_unload", 50, function()
	if now() ~= begun then leave() end
end)
mp.add_periodic_timer(1, function()
	local is_other = now() ~= begun
	if is_other and not ends() then
		leave()
	elseif is_other ~= told then
		-- The same again and again has an end now, and has none any more where the rules have gone back meanwhile.
		told = is_other
		mp.set_property("file-local-options/loop-file", is_other and "no" or mp.get_property("options/loop-file"))
	end
end)
