#!/usr/bin/env ruby
# frozen_string_literal: true

# Keeps clean pictures of the night shots, as their cameras would have recorded them without noise, to judge what takes noise away:
#
#   bundle exec demo/clean.rb FOOTAGE
#
# truth/clean/SHOT_POSE.png: two poses that follow each other, cut out where much moves, 16 bits of the camera's own codes.

require_relative "shoot"

module Demo
  SHOTS = %w[3A 3B 3C 2C].freeze
  POSES = [6, 7].freeze
  CUT = [288, 160].freeze # pixels

  def self.clean(footage)
    FileUtils.mkdir_p(File.join(HERE, "truth", "clean"))
    PRODUCTION["shots"].select { |shot| SHOTS.include?(shot["shot"]) }.each do |shot|
      poses = Photograph.new(shot, footage).clean(POSES)
      left, top = busiest(poses)
      poses.zip(POSES) { |pose, number| Media::Png.image(cut(pose, left, top), 16).write_to_file(File.join(HERE, "truth", "clean", "#{shot["shot"]}_#{number}.png"), compression: 9, filter: :all, strip: true) }
    end
  end

  # Where two pictures differ most.
  def self.busiest(poses)
    off = (poses[0].rgb - poses[1].rgb).abs.mean(axis: 0).reshape(HEIGHT, WIDTH)
    (0..(WIDTH - CUT[0])).step(32).to_a.product((0..(HEIGHT - CUT[1])).step(20).to_a).max_by { |left, top| off[top...(top + CUT[1]), left...(left + CUT[0])].mean }
  end

  def self.cut(frame, left, top)
    rgb = frame.rgb.reshape(3, HEIGHT, WIDTH)[true, top...(top + CUT[1]), left...(left + CUT[0])].dup.reshape(3, CUT[0] * CUT[1])
    Frame.new(rgb, width: CUT[0], height: CUT[1], encoding: frame.encoding)
  end
end

abort("usage: bundle exec demo/clean.rb FOOTAGE") if ARGV.size != 1
Demo.clean(ARGV.first)
