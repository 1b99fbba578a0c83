"""GStreamer's RTSP client: so many packets or pictures of a stream, as lines of JSON.

rtspClient.py URI USER PASSWORD video|application COUNT"""
import json
import sys

import gi

gi.require_version("Gst", "1.0")
gi.require_version("GstRtp", "1.0")
from gi.repository import GLib, Gst, GstRtp  # noqa: E402

uri, user, password, part, count = sys.argv[1:6]
left = int(count)
LIMIT_SECONDS = 40
Gst.init(None)
pipeline = Gst.Pipeline.new(None)
source = Gst.ElementFactory.make("rtspsrc")
source.set_property("location", uri)
source.set_property("user-id", user)
source.set_property("user-pw", password)
source.set_property("protocols", "tcp")
source.set_property("latency", 0)
pipeline.add(source)
loop = GLib.MainLoop()


def say(**what):
    global left
    if left > 0:
        print(json.dumps(what), flush=True)
    left -= 1
    if left == 0:
        loop.quit()


def link(pad, *names):
    """Puts elements after a pad; the last one."""
    last = None
    for name in names:
        element = Gst.ElementFactory.make(name)
        pipeline.add(element)
        element.sync_state_with_parent()
        if last is None:
            pad.link(element.get_static_pad("sink"))
        else:
            last.link(element)
        last = element
    return last


def listen(sink, heard):
    sink.set_property("signal-handoffs", True)
    sink.set_property("sync", False)
    sink.connect("handoff", heard)


def packet(_sink, buffer, _pad):
    ok, rtp = GstRtp.RTPBuffer.map(buffer, Gst.MapFlags.READ)
    if ok:
        start, last = rtp.get_header_len(), rtp.get_marker()
        rtp.unmap()
        payload = buffer.extract_dup(start, buffer.get_size() - start)
        say(text=payload.decode("utf-8", "replace"), last=last)


def picture(_sink, buffer, pad):
    structure = pad.get_current_caps().get_structure(0)
    ok, data = buffer.map(Gst.MapFlags.READ)
    size = structure.get_int("width")[1], structure.get_int("height")[1]
    luma = data.data[: size[0] * size[1]]
    say(width=size[0], height=size[1], mean=sum(luma[::97]) / len(luma[::97]))
    buffer.unmap(data)


def added(_source, pad):
    media = pad.get_current_caps().get_structure(0).get_string("media")
    if media == part == "video":
        chain = ("rtph264depay", "h264parse", "openh264dec", "fakesink")
        listen(link(pad, *chain), picture)
    elif media == part == "application":
        listen(link(pad, "fakesink"), packet)
    else:
        link(pad, "fakesink").set_property("sync", False)


def message(_bus, what):
    if what.type == Gst.MessageType.ERROR:
        say(error=what.parse_error()[0].message)
        loop.quit()


source.connect("pad-added", added)
bus = pipeline.get_bus()
bus.add_signal_watch()
bus.connect("message", message)
pipeline.set_state(Gst.State.PLAYING)
GLib.timeout_add_seconds(LIMIT_SECONDS, loop.quit)
loop.run()
pipeline.set_state(Gst.State.NULL)
