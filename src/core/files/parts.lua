-- parts.lua: plays of an entry what stands behind its place, such as #t=12,40.5&gain=-6.
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
end)
