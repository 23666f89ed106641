# frozen_string_literal: true

# Small video files, encoded once for a run.
module Footage
  module_function

  # A clip whose frame n is grey of code 40 * n + 100 of 1023, full-range RGB.
  #
  # @return [String] path
  def steps(folder, frames: 12, name: "steps.mkv", arguments: [])
    written(:steps, folder, frames, name, arguments) { |n| [code(n)] * (64 * 36 * 3) }
  end

  # The same, each value up to 24 codes of 1023 off, differently in each frame.
  def noisy(folder, frames: 12, name: "noisy.mkv", arguments: [])
    random = Random.new(7)
    written(:noisy, folder, frames, name, arguments) { |n| Array.new(64 * 36 * 3) { code(n) + random.rand(-1537..1537) } }
  end

  # @param kind [Symbol] what is in it, so that the same is not encoded again
  def written(kind, folder, frames, name, arguments, &picture)
    path = File.join(folder, name)
    made = (@made ||= {})[[kind, frames, File.extname(name), arguments]]
    return IO.copy_stream(StringIO.new(made), path) && path if made

    encode(path, frames, arguments, &picture)
    @made[[kind, frames, File.extname(name), arguments]] = File.binread(path)
    path
  end

  def encode(path, frames, arguments)
    Mordant::Media::Command.feed(["ffmpeg", "-v", "error", "-y", "-f", "rawvideo", "-pix_fmt", "rgb48le", "-s", "64x36",
      "-framerate", "24", "-i", "pipe:0", "-c:v", "ffv1", "-pix_fmt", "gbrp10le", *arguments, "file:#{path}"], path:) do |io|
      frames.times { |n| io.write(yield(n).pack("S<*")) }
    end
  end

  # The 16-bit code of frame n.
  def code(number) = ((40 * number + 100) * 65_535.0 / 1023).round
end
