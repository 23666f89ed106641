# frozen_string_literal: true

module Server
  module Errands
    # Follows a shape of a step's matte through its shot, onwards, backwards or both ways from a frame, and keeps
    # where it goes as a path.
    #
    # "way": "on", "back" or "both"; "path": the id of one that it goes on from, in place of what that has there;
    # "by": how far the shape was put right at the frame, in heights of the picture.
    class Track
      WAYS = %w[on back both].freeze
      WIDEST = 1920 # pixels that frames are decoded at

      # @param cut [Cut]
      # @param wish [Hash] shot, step, contributor, with, way, frame (of the cut), path, by
      # @raise [Mordant::ParameterError]
      def initialize(cut, wish)
        @cut = cut
        @shot = cut.member(wish["shot"]) || refuse("shot", "a shot of the cut", wish["shot"])
        refuse("shot", "a shot that has pictures", @shot.name) if @shot.clip.placeholder?
        @step, @contributor, @kind, @way, @name = wish.values_at("step", "contributor", "with", "way", "name")
        refuse("way", WAYS.join(", "), @way) unless WAYS.include?(@way)
        @frame = wish["frame"].is_a?(Integer) ? wish["frame"] - @shot.record_in : nil
        refuse("frame", "a frame of shot #{@shot.name}", wish["frame"]) unless @frame && (0...@shot.length).cover?(@frame)
        @by = wish["by"] || [0.0, 0.0]
        refuse("by", "two numbers, across and down", @by) unless @by.is_a?(Array) && @by.size == 2 && @by.all? { |one| one.is_a?(Numeric) && one.to_f.finite? }
        @before = wish["path"] && (cut.paths.find_by(id: wish["path"]) || refuse("path", "a path of the cut", wish["path"]))
        run
      end

      def count = ways.sum { |frames| frames.size }

      def single? = false

      # @return [Hash] id of the path
      # @raise [Mordant::Error]
      def call(_errand)
        done = 0
        paths = ways.map do |frames|
          run.path(moments(frames)) do |_|
            done += 1
            yield [done, count].min
            true
          end
        end
        kept(paths.reduce { |one, other| one.joined(other, clocked(@frame)) })
      end

      # What was found stays among the cut's paths.
      def self.forget(_errand) = nil

      private

      # @return [Array<Array<Integer>>] frames of the shot in the order they are followed in
      def ways
        on, back = (@frame...@shot.length).to_a, (0..@frame).to_a.reverse
        {"on" => [on], "back" => [back], "both" => [on, back]}.fetch(@way)
      end

      def run
        Mordant::Track::Run.new(placed, step: @step, contributor: @contributor, kind: @kind) { |recipe| plans[recipe.stamp] ||= @cut.project.plan(recipe, @shot.clip.code_encoding) }
      end

      def plans = @plans ||= {}

      # The grade, with the shape where somebody has put it right.
      def placed
        grade = @shot.grade
        entry = grade.entries.find { |one| one.id == @step } || refuse("step", "a step of the shot", @step)
        @owner = owner(entry)
        if @by.all?(&:zero?)
          grade
        else
          grade.replaced(grade.entries.map { |one| (one.id == @step) ? one.shifted(@contributor, @by) : one })
        end
      end

      # Frames that the owner of the step began before the shot.
      def owner(entry) = entry.since

      # @param frame [Integer] of the shot
      # @return [Integer] as the step counts it
      def clocked(frame) = frame + @owner

      # Nothing is held that has been looked at.
      def moments(frames)
        width, height = raster
        Enumerator.new do |found|
          frames.each do |frame|
            number = @shot.place.source_at(@shot.record_in + frame)
            moment = Mordant::Grade::Moment.new(width:, height:) { |away| decoded(number + away, width, height) }
            found.yield(frame, moment)
          end
        end
      end

      def decoded(number, width, height)
        Pictures::Desk.current.store.fetch(@shot.clip, number, width:, height:) if (0...@shot.clip.frames).cover?(number)
      end

      def raster
        by = [(@cut.project.width / WIDEST.to_f).ceil, 1].max
        [@cut.project.width / by, @cut.project.height / by]
      end

      def kept(path)
        path = path.counted_from(@owner)
        path = @before.track.joined(path, clocked(@frame), by: Mordant::Track::Map.similarity(*@by)) if @before
        row = @cut.paths.create!(shot: @shot, name: (@name || @shot.name).to_s[0, 80], document: path.to_h)
        {path: row.id, lost: path.lost, frames: path.span.size}
      end

      def refuse(path, expected, found) = raise(Mordant::ParameterError.new(path:, expected:, found:))
    end
  end
end
