# frozen_string_literal: true

# Flat programmes made of the demo's clips, with what happens in them known.
class Programmes
  WIDTH = 320
  HEIGHT = 180
  DEMO = File.expand_path("../../../demo", __dir__)

  # @return [Array<Hash>] as `mordant cuts` tells them
  attr_reader :truth
  # @return [Integer] frames
  attr_reader :length

  # Pictures of the demo's clips, decoded once for a run.
  #
  # @return [Hash{String => Numo::UInt8}] [frames, HEIGHT, WIDTH, 3] by shot
  def self.clips = @clips ||= {}

  def initialize
    @frames, @truth, @length = [], [], 0
  end

  # @param shot [String] of the demo
  # @param into [Integer] frames of dissolve with which it begins
  # @param first [Integer] frame of its clip
  # @param curve [#call] share of the way to share of the new shot
  # @yieldparam picture [Numo::SFloat] [HEIGHT, WIDTH, 3], 0..255
  # @yieldparam frame [Integer] of the stretch
  # @yieldreturn [Numo::SFloat] what is done to it
  def add(shot, count, into: 0, first: 0, curve: ->(way) { way }, &done)
    at = @length - into
    if into.positive?
      @truth << {"frame" => at, "kind" => "dissolve", "length" => into}
    elsif @length.positive?
      @truth << {"frame" => at, "kind" => "cut"}
    end
    stretch = ->(frame) { picture(shot, first + frame).then { |one| done ? done.call(one, frame) : one } }
    before = @frames.last(into)
    @frames = @frames.first(at)
    count.times do |frame|
      share = curve.call((frame + 1) / (into + 1.0))
      @frames << ((frame < into) ? mixed(before[frame], stretch, frame, share) : -> { stretch[frame] })
    end
    @length = @frames.size
    self
  end

  # Down to one level and up to the next shot, so many frames each way and of that level between.
  def fade(shot, count, down:, hold:, up:, level: 0.0)
    at = @length - down
    @frames[at..] = @frames[at..].each_with_index.map { |one, frame| mixed(one, ->(_) { level }, frame, (frame + 1) / (down + 1.0)) }
    hold.times { @frames << -> { Numo::SFloat.new(HEIGHT, WIDTH, 3).fill(level) } }
    @truth << {"frame" => at, "kind" => "fade", "length" => down + hold + up}
    count.times { |frame| @frames << mixed(-> { picture(shot, frame) }, ->(_) { level }, frame, [1 - (frame + 1) / (up + 1.0), 0.0].max) }
    @length = @frames.size
    self
  end

  # @return [String] path
  def write(path, arguments: ["-c:v", "libx264", "-preset", "veryfast", "-crf", "20", "-pix_fmt", "yuv420p"])
    Mordant::Media::Command.feed(["ffmpeg", "-v", "error", "-y", "-f", "rawvideo", "-pix_fmt", "rgb24", "-s", "#{WIDTH}x#{HEIGHT}", "-framerate", "24", "-i", "pipe:0", *arguments, "file:#{path}"], path:) do |io|
      @frames.each { |frame| io.write(Numo::UInt8.cast(frame.call.clip(0, 255)).to_binary) }
    end
    path
  end

  private

  def mixed(one, other, frame, share) = -> { one.call * (1 - share) + other.call(frame) * share }

  # Graded enough to be looked at, as a programme is.
  def picture(shot, frame)
    pictures = Programmes.clips[shot] ||= begin
      entry = JSON.parse(File.read(File.join(DEMO, "manifest.json")))["shots"].find { |one| one["shot"] == shot }
      bytes = Mordant::Media::Command.run(["ffmpeg", "-v", "error", "-i", "file:#{File.join(DEMO, "media", entry["clip"])}", "-vf", "scale=#{WIDTH}:#{HEIGHT},curves=all='0.1/0 0.7/1'", "-pix_fmt", "rgb24", "-f", "rawvideo", "pipe:1"], path: shot)
      Numo::UInt8.from_binary(bytes).then { |all| all.reshape(all.size / (WIDTH * HEIGHT * 3), HEIGHT, WIDTH, 3) }
    end
    last = pictures.shape[0] - 1
    there = frame % (2 * last) # and back again
    Numo::SFloat.cast(pictures[(there > last) ? 2 * last - there : there, true, true, true].dup)
  end
end
