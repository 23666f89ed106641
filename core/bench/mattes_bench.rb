# frozen_string_literal: true

# Keys, a stack of contributors with refinements, and following a shape.
module Bench
  module Mattes
    CIRCLE = Array.new(12) { |k| [Math.cos(k * Math::PI / 6) * 0.3, Math.sin(k * Math::PI / 6) * 0.3, Math.sin(k * Math::PI / 6) * 0.05, -Math.cos(k * Math::PI / 6) * 0.05, -Math.sin(k * Math::PI / 6) * 0.05, Math.cos(k * Math::PI / 6) * 0.05, 0, 0] }.freeze

    module_function

    def key(id, hue, nudge = 0.0) = {"id" => id, "kind" => "key", "parameters" => {"hue" => hue, "hue_width" => 60.0, "chroma_low" => 0.02 + nudge, "lightness_low" => 0.2, "lightness_high" => 0.8}}

    def shape(nudge = 0.0) = {"id" => "s", "kind" => "outline", "mode" => "intersect", "parameters" => {"points" => CIRCLE, "feather" => [0.02, 0.05], "move" => [nudge, 0.0]}}

    def stack
      {"contributors" => [key("a", 20.0), key("b", 140.0), key("c", 220.0), shape(rand / 100)],
       "refinements" => [{"id" => "b", "kind" => "blur", "parameters" => {"size" => 0.005}}, {"id" => "e", "kind" => "edges", "parameters" => {"size" => 0.02}}]}
    end

    # Of log codes that are there.
    def weights(runs = RUNS)
      space = Mordant::Colour::WorkingSpace.default
      picture = Reach.plan.run(Exact.codes(960, 540))
      moment = Mordant::Grade::Moment.of(picture)
      Bench.milliseconds(runs) { Mordant::Matte::Composite.new(yield).weights(Mordant::Matte::Sight.new(moment, space) { |other| other.window.cut(picture.rgb, moment.window) }) }
    end

    # A disc of a smooth noise that goes four pixels a frame.
    def track
      Numo::NArray.srand(4)
      soft = Mordant::Area::Gaussian.new(3.0)
      plane = (soft.call(Numo::SFloat.new(960 * 540).rand, Mordant::Grade::Window.whole(960, 540)) * 6 - 2.5).reshape(540, 960)
      mask = Numo::SFloat.cast((Numo::SFloat.new(1, 960).seq - 480)**2 + (Numo::SFloat.new(540, 1).seq - 270)**2 < 70**2)
      follow = Mordant::Track::Follow.new(plane, mask, kind: "similarity")
      moved = 0
      Bench.milliseconds(8) do
        moved += 4
        follow.next(Numo::NArray.hstack([plane[true, -moved..], plane[true, 0...-moved]]))
      end
    end
  end

  figure("key_960x540_ms", "ms", "exact weights of one key of hue, chroma and lightness") { Mattes.weights { {"contributors" => [Mattes.key("a", 220.0, rand / 100)]} } }
  figure("shape_960x540_ms", "ms", "exact weights of a shape of twelve points with a feather") { Mattes.weights { {"contributors" => [Mattes.shape(rand / 100).merge("mode" => "add")]} } }
  figure("matte_stack_960x540_ms", "ms", "exact weights of three keys and a shape, blurred and drawn along edges") { Mattes.weights { Mattes.stack } }
  figure("drag_key_ms", "ms", "Ruby time of one answer to a drag of a key's range, scopes included") { Reach.ladder { Reach.balance(matte: {"contributors" => [Mattes.key("a", 220.0, rand / 100)]}) } }
  figure("drag_shape_ms", "ms", "the same of a drag of a shape") { Reach.ladder { Reach.balance(matte: {"contributors" => [Mattes.shape(rand / 100).merge("mode" => "add")]}) } }
  figure("track_frame_ms", "ms", "a disc of a quarter of the height followed in position, turn and scale to the next frame of 960x540") { Mattes.track }
end
