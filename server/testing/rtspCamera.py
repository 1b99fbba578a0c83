"""A camera's stream over RTSP, by GStreamer's server: rtsp_camera.py PORT h264|h265|jpeg [USER PASSWORD]"""
import sys
import gi
gi.require_version('Gst', '1.0')
gi.require_version('GstRtsp', '1.0')
gi.require_version('GstRtspServer', '1.0')
from gi.repository import GLib, Gst, GstRtsp, GstRtspServer

Gst.init(None)
port, encoding = sys.argv[1], sys.argv[2]
pay = {
    'h264': 'openh264enc gop-size=15 bitrate=800000 ! h264parse ! rtph264pay name=pay0 pt=96 config-interval=1',
    'h265': 'x265enc key-int-max=15 tune=zerolatency speed-preset=ultrafast ! h265parse ! rtph265pay name=pay0 pt=96 config-interval=1',
    'jpeg': 'jpegenc ! rtpjpegpay name=pay0 pt=26',
}[encoding]
server = GstRtspServer.RTSPServer(address='127.0.0.1', service=port)
factory = GstRtspServer.RTSPMediaFactory()
factory.set_launch(f'( videotestsrc is-live=true pattern=ball ! video/x-raw,width=640,height=360,framerate=15/1,format=I420 ! {pay} )')
factory.set_shared(True)
if len(sys.argv) > 3:
    auth = GstRtspServer.RTSPAuth()
    auth.set_supported_methods(GstRtsp.RTSPAuthMethod.DIGEST)
    token = GstRtspServer.RTSPToken()
    token.set_string('media.factory.role', 'user')
    auth.add_digest(sys.argv[3], sys.argv[4], token)
    server.set_auth(auth)
    permissions = GstRtspServer.RTSPPermissions()
    permissions.add_permission_for_role('user', 'media.factory.access', True)
    permissions.add_permission_for_role('user', 'media.factory.construct', True)
    factory.set_permissions(permissions)
server.get_mount_points().add_factory('/live', factory)
server.attach(None)
print('ready', server.get_bound_port(), flush=True)
GLib.MainLoop().run()
