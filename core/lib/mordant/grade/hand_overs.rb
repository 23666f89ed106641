# frozen_string_literal: true

module Mordant
  module Grade
    # Looks along the whole chain, from what files say of themselves to the screen, for
    # places that disagree and for conversions made twice.
    class HandOvers
      # level: "fault" of what is wrong in the picture, "notice" of what is worth knowing;
      # about: what it concerns; words: what is the matter and what to do.
      Finding = Struct.new(:level, :about, :words, keyword_init: true)

      # A clip as it is read. declared_range is what the file says, range how it is read;
      # transfer is the tag of the file.
      Clip = Struct.new(:name, :encoding, :range, :declared_range, :transfer, keyword_init: true)

      # A view with a name.
      Target = Struct.new(:name, :view, keyword_init: true)

      # @param space [Colour::WorkingSpace]
      # @param targets [Array<Target>]
      # @param canvas [String] see Screen
      # @param clips [Array<Clip>]
      # @param recipes [Hash{String => Recipe}] by the name of the shot
      def initialize(space:, targets:, canvas:, clips:, recipes: {})
        @space, @targets, @canvas, @clips, @recipes = space, targets, canvas, clips, recipes
      end

      # @return [Array<Finding>] faults first
      def findings
        found = @clips.flat_map { |clip| of_clip(clip) } + @targets.flat_map { |target| of_target(target) } +
          between_targets + @recipes.flat_map { |name, recipe| of_recipe(name, recipe) }
        found.partition { |finding| finding.level == "fault" }.flatten
      end

      private

      def fault(about, words) = Finding.new(level: "fault", about:, words:)

      def notice(about, words) = Finding.new(level: "notice", about:, words:)

      def of_clip(clip)
        return [fault(clip.name, "no encoding is assigned; it is shown as if it were a finished BT.709 picture. Assign one in Intake or by a rule.")] unless clip.encoding

        [twice(clip), tagged(clip), ranged(clip), rendered_in(clip)].compact
      end

      def twice(clip)
        encoding = Colour.encoding(clip.encoding)
        renders = @targets.find { |target| target.view.rendering }
        return if !@space.scene? || encoding.scene? || renders.nil?

        fault(clip.name, "is a picture made for a display (#{encoding.label}); #{renders.name} renders it a second time. Use a display-referred project, or a target without a rendering.")
      end

      def tagged(clip)
        expected = Media::Assignment::TAGGED[clip.transfer]
        return if expected.nil? || Colour.encoding(expected).transfer == Colour.encoding(clip.encoding).transfer

        fault(clip.name, "the file is tagged #{clip.transfer}, but is read as #{Colour.encoding(clip.encoding).label}. One of the two is wrong.")
      end

      def ranged(clip)
        return if clip.declared_range.nil? || clip.range == clip.declared_range

        notice(clip.name, "the file says its codes are #{clip.declared_range} range, they are read as #{clip.range}.")
      end

      def rendered_in(clip)
        return if @space.scene? || !Colour.encoding(clip.encoding).scene?

        notice(clip.name, "is of a scene; it is rendered (#{Colour.rendering(Plan::SCENE_TO_DISPLAY).label}) on its way into this display-referred project.")
      end

      def of_target(target)
        view = target.view
        encoding = Colour.encoding(view.encoding)
        rendering = view.rendering && Colour.rendering(view.rendering)
        return [] if encoding.scene?

        [cut_off(target, encoding, rendering), left_out(target, rendering), bare(target, view), on_canvas(target, encoding, view.aim ? view.aim.peak : rendering&.peak)].compact
      end

      def cut_off(target, encoding, rendering)
        return if rendering&.peak.nil? || encoding.absolute?

        fault(target.name, "#{rendering.label} goes to #{rendering.peak.to_i} cd/m2, which #{encoding.label} cannot hold: all above white is cut off. Use ST 2084 or HLG.")
      end

      def left_out(target, rendering)
        return if @space.scene? || rendering.nil?

        notice(target.name, "its rendering is left out: a display-referred project holds rendered pictures.")
      end

      def bare(target, view)
        return if !@space.scene? || view.rendering || view.lut || view.aim

        notice(target.name, "has no rendering: scene light is shown as it is, and everything above diffuse white is cut off.")
      end

      def on_canvas(target, encoding, peak)
        canvas = Colour.encoding(Screen::CANVASES.fetch(@canvas))
        return if encoding == canvas

        bright = encoding.absolute? && (peak.nil? || peak > 100)
        notice(target.name, "is #{encoding.label}, the browser's screen is taken to be #{canvas.label}: the picture is converted for it" \
          "#{bright ? ", and what is above 100 cd/m2 is cut off there" : ""}. Files keep the target's own codes.")
      end

      # The same colours for screens of different curves: right on each, wrong exchanged.
      def between_targets
        displays = @targets.reject { |target| Colour.encoding(target.view.encoding).scene? }
        displays.combination(2).filter_map do |one, other|
          a, b = [one, other].map { |target| Colour.encoding(target.view.encoding) }
          next if a == b || a.primaries.nil? || a.primaries != b.primaries || a.absolute? || b.absolute?

          notice("#{one.name}, #{other.name}", "have the same primaries and other curves (#{a.label}; #{b.label}). A file of one shown as the other is too dark or too light.")
        end
      end

      def of_recipe(name, recipe)
        recipe.entries.select(&:acts?).filter_map do |entry|
          step = entry.step
          missing = step.missing.first
          next fault(name, "#{entry.name}: #{missing} is not in the LUT library. Put it back or choose another.") if missing

          lut_twice(name, entry)
        end
      end

      def lut_twice(name, entry)
        returns = entry.step.turns_into
        renders = @targets.find { |target| target.view.rendering }
        return if returns.nil? || Colour.encoding(returns).scene? || !@space.scene? || renders.nil?

        fault(name, "#{entry.name} returns a picture made for a display (#{Colour.encoding(returns).label}); #{renders.name} renders it a second time. Use the LUT as a target instead.")
      end
    end
  end
end
