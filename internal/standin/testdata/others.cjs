// Uses a client that nobody here wrote: what it understands is printed as JSON.
const { Cam } = require('onvif')
const [, , host, port, user, password] = process.argv
const out = {}
const cam = new Cam({ hostname: host, port: Number(port), username: user, password, timeout: 10000 }, (err) => {
  if (err) return done(err)
  out.profiles = cam.profiles.map((p) => p.$.token)
  out.sources = cam.videoSources.map((s) => s.$.token)
  const ask = (name, f) =>
    new Promise((resolve, reject) =>
      f((e, data) => {
        if (e) return reject(new Error(name + ': ' + e.message))
        out[name] = data
        resolve()
      }),
    )
  const profileToken = cam.profiles[0].$.token
  ;(async () => {
    await ask('information', (f) => cam.getDeviceInformation(f))
    await ask('time', (f) => cam.getSystemDateAndTime(f))
    await ask('services', (f) => cam.getServices(true, f))
    await ask('capabilities', (f) => cam.getCapabilities(f))
    await ask('scopes', (f) => cam.getScopes(f))
    await ask('stream', (f) => cam.getStreamUri({ protocol: 'RTSP', profileToken }, f))
    await ask('snapshot', (f) => cam.getSnapshotUri({ profileToken }, f))
    await ask('encoders', (f) => cam.getVideoEncoderConfigurations(f))
    await ask('presets', (f) => cam.getPresets({ profileToken }, f))
    await ask('recordings', (f) => cam.getRecordings(f))
    await ask('eventProperties', (f) => cam.getEventProperties(f))
    await ask('subscription', (f) => cam.createPullPointSubscription(f))
    await ask('messages', (f) => cam.pullMessages({ timeout: 1000, messageLimit: 10 }, f))
    await ask('ended', (f) => cam.unsubscribe(f))
    done()
  })().catch(done)
})
function done(err) {
  if (err) {
    console.error(err.message || err)
    process.exit(1)
  }
  console.log(JSON.stringify(out))
  process.exit(0)
}
