# frozen_string_literal: true

# Makes the truth mattes of two shots from the poses as they were rendered, without any of Mordant's code: by plain
# limits on their light, and by hand where those do not tell things apart (the boxes below).
#
#   bundle exec ruby demo/truth/make.rb FOOTAGE        FOOTAGE holds what scenes/render.sh makes
#
# sky_1D.png: the sky, clouds with it, of shot 1D behind ropes, wires, netting and the lantern's glass (day_rope, pose 5: frames 15 to 17
# of its clip). knit_1C.png: the yellow knit of shot 1C (day_mate, pose 6: frames 18 to 20).

require "numo/narray"
require "open3"
require "vips"

WIDTH, HEIGHT = 960, 540

def light(path, pose)
  raw, status = Open3.capture2("ffmpeg", "-v", "error", "-i", path, "-vf", "select=eq(n\\,#{pose})", "-frames:v", "1", "-pix_fmt", "rgb48le", "-f", "rawvideo", "pipe:1", binmode: true)
  abort("#{path} cannot be read") unless status.success?
  codes = Numo::DFloat.cast(Numo::UInt16.from_binary(raw).reshape(HEIGHT, WIDTH, 3)) / 65_535
  planes = Array.new(3) { |channel| 2**(codes[true, true, channel].dup * 20 - 14) }
  [*planes, planes.zip([0.2126, 0.7152, 0.0722]).map { |plane, weight| plane * weight }.reduce(:+)]
end

def write(mask, name)
  Vips::Image.new_from_memory((Numo::UInt8.cast(mask) * 255).to_binary, WIDTH, HEIGHT, 1, :uchar).median(3).write_to_file(File.join(__dir__, name))
end

# @param boxes [Array] columns, rows and what is so within them
def mended(mask, *boxes)
  boxes.each { |columns, rows, part| mask[rows, columns] = part[rows, columns] }
  mask
end

footage = ARGV.fetch(0)

red, green, blue, luma = light(File.join(footage, "day_rope.mkv"), 5)
sky = (blue > red * 1.04) & (luma > 0.25) & (blue > green)
cloud = (blue > red * 0.9) & (luma > 0.85)
write(mended(sky, [340..590, 300..390, sky | cloud], [885..959, 385..432, sky | ((blue > red * 0.97) & (luma > 0.9))], [664..718, 104..163, (blue > red * 2.0) & (blue > green * 1.25)]), "sky_1D.png")

red, green, blue, = light(File.join(footage, "day_mate.mkv"), 6)
knit = (blue < green * 0.45) & (green > red * 0.35) & (green < red * 0.95) & (red > 0.02)
outside = Numo::Bit.zeros(HEIGHT, WIDTH)
write(mended(knit, [0..959, 0..300, outside], [0..262, 0..398, outside], [0..200, 0..539, outside], [690..959, 0..539, outside]), "knit_1C.png")
