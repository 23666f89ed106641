# frozen_string_literal: true

# Steps that see more than a pixel, mattes, and a window of a large picture.
module Bench
  module Reach
    MATTE = {"contributors" => [{"id" => "e", "kind" => "ellipse", "mode" => "add"}, {"id" => "l", "kind" => "luminance", "mode" => "intersect", "parameters" => {"low" => 0.3}}]}.freeze
    SOFTEN = {"id" => "s", "kind" => "soften", "parameters" => {"size" => 0.05, "luma" => 1.0, "colour" => 1.0}}.freeze
    SMALL = 4 # blocks of this edge are one pixel of what instruments read while a hand moves

    module_function

    def plan(*steps) = Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => steps), source: "logc3-ei800-wg3")

    def balance(nudge = 0.0, **more) = {"id" => "b", "kind" => "balance", "parameters" => Exact::PARAMETERS.merge("exposure" => 0.4 + nudge), **more.transform_keys(&:to_s)}

    def matte(nudge = 0.0) = MATTE.merge("strength" => 1.0 - nudge)

    # What a server process does for one move of a hand on the second of three steps, two of them with mattes,
    # JSON and database aside: what has changed of the ladder, and the instruments.
    def ladder
      space, screen = Mordant::Colour::WorkingSpace.default, Mordant::Grade::Screen.new(view: Mordant::Grade::View::STANDARD)
      before = plan(balance).run(Exact.codes(960, 540))
      small, domain = before.reduce(SMALL), Mordant::Grade::Ladder::Sent.of(before, space).domain
      Bench.milliseconds(25) do
        groups = Mordant::Grade::Recipe.new("steps" => [yield, balance.merge("id" => "c", "matte" => MATTE), balance.merge("id" => "d")]).strands
        made = Mordant::Grade::Ladder.new(groups:, source: space.log, screen:, domain:, smalls: [small])
        climb = made.climbs.first
        measured = screen.measured(climb.graded)
        instruments = Mordant::Scopes::Instruments.new(Mordant::Scopes::Signal.new(measured))
        [made.rungs, climb.weights.values.map { |weights| Mordant::Grade::Ladder::Sent.weights(weights) }, Mordant::Scopes::ToneTrace.of(climb.graded).to_h, instruments.header, instruments.parts]
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
      steps = Array.new(8) { |index| {"id" => index.to_s, "kind" => "balance", "keys" => keys[index]} }
      moving = plan(*steps)
      frame = 0
      Bench.milliseconds(50) { moving.at(frame = (frame + 1) % 100) }
    end

    def peak
      Exact.peak_rss { plan(SOFTEN, balance(matte: MATTE)).run(Exact.codes(3840, 2160)) }
    end
  end

  figure("exact_soften_960x540_ms", "ms", "exact picture of a Soften of 5 % of the height and a Balance") { Reach.exact(960, 540) }
  figure("drag_matted_ms", "ms", "Ruby time of one answer to a drag of a matted step, scopes included") { Reach.ladder { Reach.balance(rand / 100, matte: Reach::MATTE) } }
  figure("drag_matte_ms", "ms", "the same of a drag of the matte itself") { Reach.ladder { Reach.balance(matte: Reach.matte(rand / 100)) } }
  figure("uhd_window_1to1_ms", "ms", "exact 1280x720 window of a decoded 3840x2160 frame") { Reach.window }
  figure("bind_frame_ms", "ms", "a plan of eight moving steps bound to a frame") { Reach.bind }
  figure("uhd_soften_peak_rss_mb", "MB", "peak memory of a 3840x2160 frame with a Soften of 5 % and a matte", alone: true) { [Reach.peak] }
end
