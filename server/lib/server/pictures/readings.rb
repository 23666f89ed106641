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
        space = @wish.project.space
        entries.to_h { |entry| [entry.id, entry.step.tone_samples(space, count: Desk::CURVE_POINTS)&.map { |t| t.round(4) }] }.compact
      end

      # @return [Hash{String => Hash}] shapes of curves by the id of the step
      def shapes
        entries.to_h { |entry| [entry.id, entry.step.shapes(count: Desk::SHAPE_POINTS).transform_values { |row| row.map { |y| y.round(4) } }] }.reject { |_, shapes| shapes.empty? }
      end

      # @return [Hash{String => Hash}] parameters at the frame, by the id of a step that moves
      def moved
        trial.select(&:moving?).to_h { |entry| [entry.id, entry.at(frame).step.values] }
      end

      # @param step [String, nil] id of the open step
      # @return [Hash, nil] see Mordant::Scopes::StepInput
      def input(step)
        frame = step && @desk.step_input(@wish, step)
        frame && {step:, **Mordant::Scopes::StepInput.new(frame, space: @wish.project.space).to_h}
      end

      private

      # In the time of what owns them.
      def trial
        shot = @wish.shot
        rows = shot.layers.index_by(&:id)
        (@wish.trial || {}).flat_map { |id, grade| (rows[id] ? shot.timed(rows[id], grade) : grade).entries }
      end

      def entries = trial.map { |entry| entry.at(frame) }

      # @return [Integer] from the shot's first one
      def frame = @frame ||= @wish.frame - @wish.cut.timeline.layers(@wish.frame).last.shot.record_in
    end
  end
end
