# frozen_string_literal: true

module Mordant
  module Colour
    # Members of a family by their id. Reading it loads the family's folder, so
    # that a member is known as soon as its file exists.
    module Registry
      # @param member [#id]
      # @return the member
      def register(member)
        members[member.id] = member
      end

      # @raise [UnknownIdError]
      def fetch(id)
        all.find { |member| member.id == id } || raise(UnknownIdError.new(family, id, all.map(&:id)))
      end

      def known?(id) = all.any? { |member| member.id == id }

      # @return [Array] every member, by id
      def all
        LOADER.eager_load_namespace(folder)
        members.values.sort_by(&:id)
      end

      private

      def members = (@members ||= {})
    end
  end
end
