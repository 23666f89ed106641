# frozen_string_literal: true

require "tempfile"

module Server
  # The sound of a stretch, out of its sources; silence where one has none.
  module Sound
    RATE = 48_000
    PATIENCE = 120 # seconds in which it may write nothing, and one for each second of the stretch

    module_function

    # @param stretch [Stretch]
    # @return [Tempfile, nil] a WAV file; nil where no source has sound
    # @raise [Mordant::MediaError]
    def of(stretch)
      rate = stretch.cut.project.rate
      pieces = pieces(stretch)
      sounding = pieces.map(&:first).uniq.select { |clip| sound?(clip) }
      return if sounding.empty?

      file = Tempfile.new(["sound", ".wav"])
      inputs = pieces.flat_map { |clip, shot| input(clip, shot, rate, sounding.include?(clip)) }
      heads = pieces.each_with_index.map { |(clip, shot), index| "[#{index}:a:0]aformat=sample_rates=#{RATE}:channel_layouts=stereo#{pace(shot, rate) if sounding.include?(clip)}[a#{index}]" }
      joined = "#{pieces.each_index.map { |index| "[a#{index}]" }.join}concat=n=#{pieces.size}:v=0:a=1[out]"
      Mordant::Media::Command.run(["ffmpeg", "-v", "error", "-y", "-nostdin", *inputs, "-filter_complex", [*heads, joined].join(";"), "-map", "[out]", "-c:a", "pcm_s24le", file.path],
        path: stretch.cut.name, limit: PATIENCE + stretch.length / rate)
      file
    end

    # @return [Boolean] a source of it has sound
    def any?(stretch) = pieces(stretch).map(&:first).uniq.any? { |clip| sound?(clip) }

    # @return [Array<Array(Clip, Mordant::Cut::Timeline::Shot)>]
    def pieces(stretch)
      stretch.cut.loaded_shots unless stretch.shot
      stretch.timeline.shots.select { |shot| shot.record_out.positive? }.map { |shot| [stretch.cut.shot(shot.key).clip, shot] }
    end

    def input(clip, shot, rate, sounds)
      seconds = format("%.6f", shot.length / rate)
      return ["-f", "lavfi", "-t", seconds, "-i", "anullsrc=r=#{RATE}:cl=stereo"] unless sounds

      own = clip.paced? ? rate : clip.rate # in which shots count its frames
      first = [shot.source_in, shot.source_at(shot.record_out - 1)].min
      [*Mordant::Media::Command::LIMITS, "-ss", format("%.6f", first / own), "-t", format("%.6f", shot.plain? ? shot.length / rate : [shot.length * shot.speed.abs, 1].max / own), "-i", "file:#{clip.file}"]
    end

    # A shot that runs at another speed sounds at it, at its own pitch; one that stands still is silent.
    def pace(shot, rate)
      return if shot.plain?

      speed = shot.speed.abs
      tempo = speed.zero? ? ["volume=0"] : Array.new(halvings(speed), "atempo=0.5") + ["atempo=#{format("%.6f", (speed * 2**halvings(speed)).clamp(0.5, 100))}"]
      ["", *("areverse" if shot.speed.negative?), *tempo, "apad", "atrim=duration=#{format("%.6f", shot.length / rate)}"].join(",")
    end

    # atempo takes no less than a half at once.
    def halvings(speed) = (speed < 0.5) ? Math.log2(0.5 / speed).ceil : 0

    def sound?(clip)
      return false if clip.placeholder?
      return false if Mordant::Media::Sequence.parse(File.basename(clip.path))

      !Mordant::Media::Command.run([*Mordant::Media::Command::PROBE, "-select_streams", "a", "-show_entries", "stream=index", "-of", "csv=p=0", "file:#{clip.file}"], path: clip.path).strip.empty?
    end
  end
end
