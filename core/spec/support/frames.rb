# frozen_string_literal: true

# Pictures to try things on.
module Frames
  module_function

  # Every kind of value a picture can hold: codes from 0 to full, greys, hues.
  #
  # @return [Mordant::Media::Codes]
  def codes(width: 64, height: 48, seed: 7)
    Numo::NArray.srand(seed)
    Mordant::Media::Codes.new(Numo::UInt16.cast(Numo::DFloat.new(3, width * height).rand(65_536)), width:, height:)
  end

  # A grey ramp from left to right, 0.0..1.0.
  def ramp(width: 256, height: 4, encoding: "rec709-bt1886")
    row = Numo::SFloat.new(width).seq / (width - 1)
    plane = Numo::NArray.concatenate([row] * height)
    Mordant::Frame.new(Numo::NArray.vstack([plane, plane, plane]), width:, height:, encoding:)
  end

  # @param values [Array<Float>]
  def flat(values, width: 8, height: 8, encoding: "acescct")
    rgb = Numo::SFloat.zeros(3, width * height)
    3.times { |channel| rgb[channel, true] = values[channel] }
    Mordant::Frame.new(rgb, width:, height:, encoding:)
  end

  def recipe(**parameters)
    Mordant::Grade::Recipe.new("steps" => [{"id" => "a", "kind" => "balance", "parameters" => parameters.transform_keys(&:to_s)}])
  end
end
