import type { Answers } from './poorDevice.ts'

// Answers of our own writing, by the ONVIF specifications (from memory), as devices give them that do less than ours.

/** Another prefix for SOAP, and for the rest, than ours. */
export const soap = (body: string): string =>
  `<?xml version="1.0" encoding="UTF-8"?>
<SOAP-ENV:Envelope xmlns:SOAP-ENV="http://www.w3.org/2003/05/soap-envelope" xmlns:ns1="http://www.onvif.org/ver10/device/wsdl" xmlns:ns2="http://www.onvif.org/ver10/media/wsdl" xmlns:ns3="http://www.onvif.org/ver20/media/wsdl" xmlns:ns4="http://www.onvif.org/ver10/schema"><SOAP-ENV:Body>${body}</SOAP-ENV:Body></SOAP-ENV:Envelope>`
export const time = (): string => {
  const now = new Date()
  return soap(
    `<ns1:GetSystemDateAndTimeResponse><ns1:SystemDateAndTime><ns4:UTCDateTime><ns4:Time><ns4:Hour>${now.getUTCHours()}</ns4:Hour><ns4:Minute>${now.getUTCMinutes()}</ns4:Minute><ns4:Second>${now.getUTCSeconds()}</ns4:Second></ns4:Time><ns4:Date><ns4:Year>${now.getUTCFullYear()}</ns4:Year><ns4:Month>${now.getUTCMonth() + 1}</ns4:Month><ns4:Day>${now.getUTCDate()}</ns4:Day></ns4:Date></ns4:UTCDateTime></ns1:SystemDateAndTime></ns1:GetSystemDateAndTimeResponse>`
  )
}
const profile = (
  token: string,
  source: string,
  name: string,
  [width, height]: readonly [number, number]
): string =>
  `<ns2:Profiles token="${token}"><ns4:Name>${token}</ns4:Name><ns4:VideoSourceConfiguration token="vs-${source}"><ns4:Name>${name}</ns4:Name><ns4:SourceToken>${source}</ns4:SourceToken></ns4:VideoSourceConfiguration><ns4:VideoEncoderConfiguration token="ve-${token}"><ns4:Encoding>H264</ns4:Encoding><ns4:Resolution><ns4:Width>${width}</ns4:Width><ns4:Height>${height}</ns4:Height></ns4:Resolution></ns4:VideoEncoderConfiguration></ns2:Profiles>`
export const users = soap(
  '<ns1:GetUsersResponse><ns1:User><ns4:Username>admin</ns4:Username></ns1:User></ns1:GetUsersResponse>'
)

/** Media 1 alone, found by its capabilities, without analysis, snapshots, events or outputs. */
export const picturesOnly = (uri: string): Answers => ({
  GetSystemDateAndTime: time,
  GetUsers: users,
  GetCapabilities: soap(
    '<ns1:GetCapabilitiesResponse><ns1:Capabilities><ns4:Media><ns4:XAddr>http://10.0.0.9/onvif/media</ns4:XAddr></ns4:Media></ns1:Capabilities></ns1:GetCapabilitiesResponse>'
  ),
  GetProfiles: soap(
    `<ns2:GetProfilesResponse>${profile('main', '0', 'VideoSource_1', [2560, 1440])}${profile('sub', '0', 'VideoSource_1', [704, 480])}${profile('tiny', '0', 'VideoSource_1', [320, 180])}</ns2:GetProfilesResponse>`
  ),
  // Behind a translation of addresses it knows another address than it is reached at.
  GetStreamUri: soap(
    `<ns2:GetStreamUriResponse><ns2:MediaUri><ns4:Uri>${uri}</ns4:Uri></ns2:MediaUri></ns2:GetStreamUriResponse>`
  )
})
