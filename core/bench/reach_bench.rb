# frozen_string_literal: true

# Steps that see more than a pixel, mattes, and a window of a large picture.
module Bench
  module Reach
    MATTE = {"contributors" => [{"id" => "e", "kind" => "ellipse", "mode" => "add"}, {"id" => "l", "kind" => "luminance", "mode" => "intersect", "parameters" => {"low" => 0.3}}]}.freeze
    SOFTEN = {"id" => "s", "kind" => "soften", "parameters" => {"size" => 0.05, "luma" => 1.0, "colour" => 1.0}}.freeze
    DRAG = 3 # blocks of this edge are one pixel while a hand moves

    module_function

    def plan(*steps) = Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => steps), source: "logc3-ei800-wg3")

    def balance(nudge = 0.0, **more) = {"id" => "b", "kind" => "balance", "parameters" => Exact::PARAMETERS.merge("exposure" => 0.4 + nudge), **more.transform_keys(&:to_s)}

    def matte(nudge = 0.0) = MATTE.merge("strength" => 1.0 - nudge)

    # What a screen is sent while a hand moves where no lattice can stand for the grade.
    def reduced
      source = Exact.codes(960, 540).reduce(DRAG)
      Bench.milliseconds(25) do
        working, measured = Exact.picture(source, plan: yield)
        instruments = Mordant::Scopes::Instruments.new(Mordant::Scopes::Signal.new(measured))
        [Mordant::Media::Png.encode(measured), Mordant::Scopes::ToneTrace.new(working).to_h, instruments.header, instruments.parts]
      end
    end

    def exact(width, height)
      source = Exact.codes(width, height)
      Bench.milliseconds(5) { Exact.picture(source, plan: plan(SOFTEN, balance(rand / 100))) }
    end

    def window
      moment = Mordant::Grade::Moment.of(Exact.codes(3840, 2160)).at(Mordant::Grade::Window.new(left: 1280, top: 720, width: 1280, height: 720))
      Bench.milliseconds(5) { Exact.output.run(plan(balance(rand / 100)).picture(moment)) }
    end

    # Eight steps that move.
    def bind
      keys = ->(index) { [{"frame" => 0, "parameters" => {}}, {"frame" => 100, "parameters" => Exact::PARAMETERS.merge("exposure" => index / 10.0)}] }
      moving = plan(Array.new(8) { |index| {"id" => index.to_s, "kind" => "balance", "keys" => keys[index]} })
      frame = 0
      Bench.milliseconds(50) { moving.at(frame = (frame + 1) % 100) }
    end

    def peak
      Exact.peak_rss { plan(SOFTEN, balance(matte: MATTE)).run(Exact.codes(3840, 2160)) }
    end
  end

  figure("exact_soften_960x540_ms", "ms", "exact picture of a Soften of 5 % of the height and a Balance") { Reach.exact(960, 540) }
  figure("drag_matted_ms", "ms", "Ruby time of one answer to a drag of a matted step, reduced, scopes included") { Reach.reduced { Reach.plan(Reach.balance(rand / 100, matte: Reach::MATTE), Reach.balance.merge("id" => "c")) } }
  figure("drag_matte_ms", "ms", "the same of a drag of the matte itself") { Reach.reduced { Reach.plan(Reach.balance(matte: Reach.matte(rand / 100)), Reach.balance.merge("id" => "c")) } }
  figure("uhd_window_1to1_ms", "ms", "exact 1280x720 window of a decoded 3840x2160 frame") { Reach.window }
  figure("bind_frame_ms", "ms", "a plan of eight moving steps bound to a frame") { Reach.bind }
  figure("uhd_soften_peak_rss_mb", "MB", "peak memory of a 3840x2160 frame with a Soften of 5 % and a matte") { [Reach.peak] }
end
