# frozen_string_literal: true

require "tmpdir"

# Shot changes of a flat programme, beside the time that it runs and beside decoding it.
module Bench
  module ShotChanges
    SIZE = "1920:1080"
    ROUNDS = 3 # of all shots; what it takes to begin does not count for much then
    RUNS = 2
    DEMO = File.expand_path("../../demo", __dir__)
    GRADED = "curves=all='0.1/0 0.7/1'"

    module_function

    # Shots of the demo one after another, some rounds of them, as 1080-line H.264.
    #
    # @yieldparam path [String]
    # @yieldparam seconds [Float] that it runs
    def programme
      clips = JSON.parse(File.read(File.join(DEMO, "manifest.json")))["shots"].map { |shot| File.join(DEMO, "media", shot["clip"]) }
      Dir.mktmpdir do |folder|
        round, path = %w[round programme].map { |name| File.join(folder, "#{name}.mp4") }
        shots = clips.each_index.map { |at| "[#{at}:v]scale=#{SIZE},#{GRADED},format=yuv420p,setsar=1,fps=24[#{at}]" }
        BulkRender.run(*clips.flat_map { |clip| ["-i", clip] }, "-filter_complex", "#{shots.join(";")};#{clips.each_index.map { |at| "[#{at}]" }.join}concat=n=#{clips.size}[v]", "-map", "[v]", "-c:v", "libx264", "-preset", "veryfast", round)
        BulkRender.run("-stream_loop", (ROUNDS - 1).to_s, "-i", round, "-c", "copy", path)
        facts = Mordant::Media::Probe.call(path)
        yield path, (facts.frames / facts.rate).to_f
      end
    end

    def real_time = programme { |path, seconds| Array.new(RUNS) { seconds / Deliveries.cpu { Mordant::Cut::Changes.of(path) } } }

    def beside_decoding
      programme do |path, _|
        Array.new(RUNS) { Deliveries.cpu { Mordant::Cut::Changes.of(path) } / Deliveries.cpu { BulkRender.run("-threads", "1", "-i", path, "-f", "null", "-") } }
      end
    end
  end

  figure("shot_changes_real_time", "times", "length of a programme of 1080-line H.264 over the CPU time of looking for its shot changes", more: true) { ShotChanges.real_time }
  figure("shot_changes_vs_decode", "times", "that CPU time over ffmpeg's for decoding all of the programme") { ShotChanges.beside_decoding }
end
