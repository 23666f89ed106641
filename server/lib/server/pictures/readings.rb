# frozen_string_literal: true

module Server
  module Pictures
    # What is told of a recipe beside its picture, for controls to draw: curves of steps,
    # what the open step sees, a patch of skin.
    class Readings
      # @param desk [Desk]
      # @param wish [Wish]
      def initialize(desk, wish)
        @desk, @wish = desk, wish
      end

      # @return [Hash{String => Array<Float>}] tone curves by the id of the step
      def curves
        entries.to_h { |entry| [entry.id, curve(entry.step)] }.compact
      end

      # @return [Hash{String => Hash}] shapes of curves by the id of the step or the refinement
      def shapes
        bent = entries.flat_map { |entry| [[entry.id, entry.step], *entry.matte&.refinements&.map { |one| [one.id, one.refinement] }] }
        bent.to_h { |id, declared| [id, declared.shapes(count: Desk::SHAPE_POINTS).transform_values { |row| row.map { |y| y.round(4) } }] }.reject { |_, shapes| shapes.empty? }
      end

      # @return [Hash{String => Hash}] parameters at the frame, by the id of a step or a contributor that moves
      def moved
        trial.select(&:moving?).each_with_object({}) do |entry, told|
          at = entry.at(frame)
          told[entry.id] = at.step.values
          entry.matte&.parts&.zip(at.matte.parts)&.each { |part, there| told[part.id] = there.contributor.values if part.moving? }
        end
      end

      # @return [Hash{String => Float}] how much of a step its spans leave at the frame, by its id
      def spanned = trial.reject { |entry| entry.spans.empty? }.to_h { |entry| [entry.id, entry.spanned(frame).round(4)] }

      MOST_PLACES = 240 # of a course

      # How a parameter of the open step, or of a contributor to its matte, goes over its shot.
      #
      # @param asked [Hash, nil] step, parameter and perhaps contributor
      # @return [Hash, nil] frames, counted from the owner's first one, and values, a row for each; nil of one that does not move
      def course(asked)
        step, contributor, parameter = asked.is_a?(Hash) ? asked.values_at("step", "contributor", "parameter") : nil
        entry = trial.find { |one| one.id == step } or return
        keys = contributor ? entry.matte&.parts&.find { |one| one.id == contributor }&.keys : entry.keys
        course = keys&.courses&.[](parameter.to_s.to_sym) or return
        return unless course.numbers?

        frames = places.map { |at| at + entry.since }
        {step:, contributor:, parameter:, frames:, values: frames.map { |at| Array(course.at(at)).map { |value| value.round(6) } }}
      end

      # @param step [String, nil] id of the open step
      # @return [Hash, nil] see Mordant::Scopes::StepInput
      def input(step) = step && @desk.step_counts(@wish, step)&.then { |counts| {step:, **counts} }

      # @param step [String, nil] id of the open step
      # @param patch [Array<Float>, nil] of the picture
      # @return [Hash, nil] of one that exposes film, see Mordant::Scopes::Exposures
      # @raise [Mordant::ParameterError]
      def exposed(step, patch)
        return unless entries.any? { |entry| entry.id == step && entry.step.is_a?(Mordant::Steps::Emulsion) }

        @desk.step_input(@wish, step)&.then { |frame| {step:, **Mordant::Scopes::Exposures.new(frame, space: @wish.project.space, patch:).to_h} }
      end

      # @param step [String, nil] id of the open step
      # @return [Hash, nil] share of the picture that its matte takes, and share in between; nil of one without a matte
      def acting(step)
        return unless masked(step)

        {step:, **Mordant::Grade::MatteLook.told(@desk.acting(@wish, step:, extent: "small"))}
      end

      # @param asked [Hash, nil] step and contributor, ids of a key that is open
      # @return [Hash, nil] see Mordant::Scopes::KeyInput
      def key(asked)
        step, contributor = asked.is_a?(Hash) ? asked.values_at("step", "contributor") : nil
        part = masked(step)&.parts&.find { |one| one.id == contributor } or return

        {step:, contributor:, places: part.contributor.places, **@desk.key_input(@wish, step:, contributor:).to_h}
      end

      CURVES = Mordant::Pointwise::Lately.new(64)
      private_constant :CURVES

      private

      # Of a step that a hand does not move it stays.
      def curve(step)
        space = @wish.project.space
        CURVES.fetch([step.class, step.values, step.stamps, space.id]) { step.tone_samples(space, count: Desk::CURVE_POINTS).to_a.map { |t| t.round(4) } }.then { |row| row unless row.empty? }
      end

      # @return [Mordant::Matte::Composite, nil] of a step
      def masked(step) = entries.find { |entry| entry.id == step }&.matte&.then { |matte| matte if matte.parts.any? }

      # In the time of what owns them, with what their mattes refer to.
      def trial
        return @entries_tried if @entries_tried

        shot = @wish.shot
        rows = shot.layers.index_by(&:id)
        tried = @wish.trial || {}
        own = tried.select { |id, _| rows.key?(id) }
        whole = own.any? ? @wish.graded(shot).entries.index_by(&:id) : {}
        @entries_tried = own.flat_map { |_, grade| grade.entries.map { |entry| whole.fetch(entry.id, entry) } } + corrections(shot, tried)
      end

      # Of a rendition.
      def corrections(shot, tried) = @wish.screen&.view&.aim ? @wish.cut.renditions.corrections(shot, tried).entries : []

      def entries = @entries ||= trial.map { |entry| entry.at(frame) }

      # @return [Array<Integer>] frames of the shot, all or as many as tell
      def places
        last = @wish.shot.length - 1
        count = [last, MOST_PLACES].min
        count.zero? ? [0] : (0..count).map { |place| place * last / count }
      end

      # @return [Integer] from the shot's first one
      def frame = @frame ||= @wish.frame - @wish.cut.timeline.layers(@wish.frame).last.shot.record_in
    end
  end
end
