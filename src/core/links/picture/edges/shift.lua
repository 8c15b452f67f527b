-- shift.lua: what stands still moves a little each minute, so that its edges do not wear into the panel.
local ways = { { 0, 0 }, { 1, 0 }, { 1, 1 }, { 0, 1 }, { -1, 1 }, { -1, 0 }, { -1, -1 }, { 0, -1 }, { 1, -1 } }
local now = 1
mp.add_periodic_timer(60, function()
	now = now % #ways + 1
	mp.set_property_number("video-pan-x", ways[now][1] * 0.003)
	mp.set_property_number("video-pan-y", ways[now][2] * 0.003)
end)
